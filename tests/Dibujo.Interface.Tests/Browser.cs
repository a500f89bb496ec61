using System.Collections.Concurrent;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Dibujo.Interface.Tests;

/// <summary>A person at a browser: sees, presses, types.</summary>
internal sealed class Browser : IDisposable
{
    /// <summary>Looks in the page itself: a list may be long.</summary>
    private const string Find = """
        const [css, text, isExact] = arguments;
        const holds = (said) => isExact ? said.trim() === text : said.includes(text);
        return [...document.querySelectorAll(css)].find((one) => one.checkVisibility() && holds(one.innerText));
        """;

    /// <summary>A machine that is busy with other things takes long; who is not kept waiting does not notice.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(45);
    private const int MostTold = 1500;
    private const int MostTabs = 200;
    private const int UsualWidth = 1280;

    /// <summary>Windows that nobody uses at the moment: starting one takes longer than most of what is done in it.</summary>
    private static readonly ConcurrentBag<ChromeDriver> Idle = [];

    private readonly ChromeDriver driver;
    private readonly Uri address;

    /// <summary>Whether the window is as another person may find it once what it stores is deleted.</summary>
    private bool isUsual;

    static Browser() => AppDomain.CurrentDomain.ProcessExit += (_, _) =>
    {
        foreach (var one in Idle)
        {
            one.Quit();
        }
    };

    internal Browser(Uri address, int width = UsualWidth)
    {
        this.address = address;
        isUsual = width == UsualWidth;
        driver = isUsual && Idle.TryTake(out var idle) ? idle : Start();
        if (!isUsual)
        {
            // A window cannot be as narrow as a phone.
            driver.ExecuteCdpCommand("Emulation.setDeviceMetricsOverride", new() { ["width"] = width, ["height"] = 800, ["deviceScaleFactor"] = 1, ["mobile"] = true });
        }
    }

    private static ChromeDriver Start()
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", "--window-size=1280,800", "--lang=en",
            $"--user-data-dir={Directory.CreateTempSubdirectory("dibujo-chromium-").FullName}");
        return new(ChromeDriverService.CreateDefaultService("/usr/bin"), options, TimeSpan.FromMinutes(2));
    }

    /// <summary>How often the person pressed something or a key that is no part of a word, since it was last set.</summary>
    internal int Presses { get; private set; }

    /// <summary>How many words were typed since it was last set.</summary>
    internal int Words { get; private set; }

    /// <summary>Leaves nothing of this person behind, and the window to the next.</summary>
    public void Dispose()
    {
        if (!isUsual)
        {
            driver.Quit();
            return;
        }

        // What the page wants to say on leaving is not asked about.
        driver.ExecuteCdpCommand("Page.navigate", new() { ["url"] = "about:blank" });
        driver.ExecuteCdpCommand("Network.clearBrowserCookies", []);
        driver.ExecuteCdpCommand("Storage.clearDataForOrigin", new() { ["origin"] = address.GetLeftPart(UriPartial.Authority), ["storageTypes"] = "local_storage,session_storage,indexeddb,cache_storage" });
        Idle.Add(driver);
    }

    /// <summary>Counts from nothing again.</summary>
    internal void Recount() => (Presses, Words) = (0, 0);

    /// <summary>Signs in where the person wants to go.</summary>
    internal void SignIn(string person, string path = "/", string password = "quillhaven")
    {
        Open(path);
        Type("input[name=userName]", person);
        Type("input[name=password]", password + Keys.Enter);
        See("nav[aria-label=Place]");
    }

    internal void SignOut()
    {
        Press("button[aria-label='Sign out']");
        See("input[name=userName]");
    }

    internal void Open(string path) => driver.Navigate().GoToUrl(new Uri(address, path));

    /// <summary>Waits until the element is there and seen.</summary>
    internal IWebElement See(string css) => Until(css, () => driver.FindElements(By.CssSelector(css)).FirstOrDefault(e => e.Displayed));

    /// <summary>Waits until the sheet follows the typing.</summary>
    internal void SeeLive() => Until("a live sheet", () => driver.FindElements(By.CssSelector("[data-live=true]")).FirstOrDefault());

    /// <summary>Waits until some such input holds that.</summary>
    internal void SeeValue(string css, string value) =>
        Until($"{css} with “{value}” in it", () => driver.FindElements(By.CssSelector(css)).FirstOrDefault(e => e.GetDomProperty("value") == value));

    internal void SeeNothing(string css) => Until($"no {css}", () => driver.FindElements(By.CssSelector(css)).Count == 0 ? "" : null);

    /// <summary>Waits until no such element has this text in it.</summary>
    internal void SeeNothing(string css, string text) => Until(
        $"no {css} with “{text}”", () => driver.ExecuteScript(Find, css, text, false) is null ? "" : null);

    /// <summary>Waits until there are such elements and each has this text in it, in whatever case.</summary>
    internal void SeeOnly(string css, string text) => Until(
        $"only {css} with “{text}”",
        () => driver.ExecuteScript("const all = [...document.querySelectorAll(arguments[0])]; return all.length > 0 && all.every((one) => one.innerText.toLowerCase().includes(arguments[1].toLowerCase()))", css, text) is true ? "" : null);

    /// <summary>Waits until some such element has this text in it.</summary>
    internal IWebElement See(string css, string text, bool isExact = false) => Until(
        $"{css} with “{text}”", () => (IWebElement?)driver.ExecuteScript(Find, css, text, isExact));

    /// <summary>Presses it once it can be pressed: a button that waits takes a press without a word.</summary>
    internal void Press(string css)
    {
        Act(() => Until($"{css} that can be pressed", () => driver.FindElements(By.CssSelector(css)).FirstOrDefault(e => e.Displayed) is { Enabled: true } found ? found : null).Click());
        Presses++;
    }

    /// <summary>Presses the first with this text in it, or with exactly it, once it can be pressed.</summary>
    internal void Press(string css, string text, bool isExact = false)
    {
        Act(() => Until(
            $"{css} with “{text}” that can be pressed",
            () => (IWebElement?)driver.ExecuteScript(Find, css, text, isExact) is { Enabled: true } found ? found : null).Click());
        Presses++;
    }

    /// <summary>Chooses a file where one is asked for; such an input is never seen.</summary>
    internal void Attach(string css, string file) => driver.FindElement(By.CssSelector(css)).SendKeys(file);

    internal void Type(string css, string text) => Act(() => See(css).SendKeys(text));

    /// <summary>Types something in place of all that stands in an input.</summary>
    internal void Retype(string css, string text) => Type(css, Keys.Control + "a" + Keys.Null + text);

    /// <summary>Types where the focus is.</summary>
    internal void Keyboard(string keys)
    {
        driver.SwitchTo().ActiveElement().SendKeys(keys);
        var letters = keys.Where(key => key is < '\uE000' or > '\uF8FF').ToArray();
        Presses += keys.Length - letters.Length;
        Words += new string(letters).Split(' ', StringSplitOptions.RemoveEmptyEntries).Length;
    }

    /// <summary>Goes on from one thing to the next by Tab until such an element with this text in it has the focus.</summary>
    internal void TabTo(string css, string text = "")
    {
        for (var i = 0; i < MostTabs; i++)
        {
            if (driver.ExecuteScript("const at = document.activeElement; return at.matches(arguments[0]) && at.innerText.includes(arguments[1])", css, text) is true)
            {
                return;
            }

            Keyboard(Keys.Tab);
        }

        throw new TimeoutException($"Did not come to {css} with “{text}” by {MostTabs} tabs.");
    }

    /// <summary>Presses a key that stands for something by itself, such as "n" for a new rule.</summary>
    internal void Shortcut(string key)
    {
        driver.SwitchTo().ActiveElement().SendKeys(Keys.Alt + key + Keys.Null);
        Presses++;
    }

    /// <summary>The list of the blank that is open.</summary>
    private const string OpenList = "input[aria-label^='Find ']:not([aria-label='Find rules by words'])";

    /// <summary>Presses the one, draws the pointer to the other, and lets go there.</summary>
    internal void Drag(string from, string to)
    {
        var (start, end) = (See(from), See(to));
        new OpenQA.Selenium.Interactions.Actions(driver).MoveToElement(start).ClickAndHold().MoveToElement(end).Release().Perform();
        Presses++;
    }

    /// <summary>Fills the blank that is open: filters by typing, and takes the first that is left.</summary>
    internal void Pick(string text)
    {
        See(OpenList);
        Keyboard(text);
        See("[role=option][data-combobox-selected]", text.Split(' ')[0]);
        Keyboard(Keys.Enter);
    }

    /// <summary>Fills the blank that is open by pressing what it offers.</summary>
    internal void PressOption(string text) => Press("[role=listbox] [role=option] > span", text, isExact: true);

    /// <summary>Ticks what the open blank offers, so that several can be taken.</summary>
    internal void PressTick(string text)
    {
        Act(() => See("[role=listbox] [role=option]", text).FindElement(By.CssSelector("[data-tick]")).Click());
        Presses++;
    }

    /// <summary>Opens a blank of a sentence and fills it.</summary>
    internal void FillBlank(string css, string text)
    {
        Press(css);
        Pick(text);
    }

    /// <summary>What stands in each such element, marked or not.</summary>
    internal IEnumerable<string> TextOf(string css) => [.. driver.FindElements(By.CssSelector(css)).Select(e => e.Text)];

    internal string? Attribute(string css, string name) => See(css).GetDomAttribute(name);

    /// <summary>Runs a script in each page that is opened from now on, before anything else in it.</summary>
    internal void BeforeEachPage(string script)
    {
        isUsual = false;
        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = script });
    }

    /// <summary>Has the page tell something of itself.</summary>
    internal object? Evaluate(string script) => driver.ExecuteScript($"return {script}");

    /// <summary>Takes the network away from the page, or gives it back.</summary>
    internal void LoseConnection(bool isLost) => Network(isLost, 0);

    /// <summary>Has every answer of the server come that many milliseconds later.</summary>
    internal void Slowly(int latency) => Network(isLost: false, latency);

    /// <summary>Pastes text where the focus is, as from another program.</summary>
    internal void Paste(string text) => driver.ExecuteScript(
        "const data = new DataTransfer(); data.setData('text/plain', arguments[0]); document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));", text);

    /// <summary>What would be copied where the focus is.</summary>
    internal string Copy() => (string)driver.ExecuteScript(
        "const data = new DataTransfer(); document.activeElement.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true })); return data.getData('text/plain');")!;

    /// <summary>Runs a script in the page.</summary>
    internal void Run(string script) => driver.ExecuteScript(script);

    /// <summary>Runs a script that answers by calling its last operand.</summary>
    internal object RunLater(string script) => driver.ExecuteAsyncScript(script)!;

    private void Network(bool isLost, int latency)
    {
        isUsual = false;
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand("Network.emulateNetworkConditions", new()
        {
            ["offline"] = isLost,
            ["latency"] = latency,
            ["downloadThroughput"] = -1,
            ["uploadThroughput"] = -1,
        });
    }

    /// <summary>Does it once nothing is in the way: a machine that is busy takes long to close what was open.</summary>
    private static void Act(Action action)
    {
        var end = DateTime.UtcNow + Patience;
        while (true)
        {
            try
            {
                action();
                return;
            }
            catch (WebDriverException e) when (DateTime.UtcNow < end && e is StaleElementReferenceException or ElementClickInterceptedException or ElementNotInteractableException)
            {
                // Drawn anew between finding and pressing; a person would press again.
                Task.Delay(150).Wait();
            }
        }
    }

    /// <summary>Waits until the look finds something.</summary>
    internal T Until<T>(string what, Func<T?> look)
        where T : class
    {
        var end = DateTime.UtcNow + Patience;
        while (true)
        {
            try
            {
                if (look() is { } found)
                {
                    return found;
                }
            }
            catch (StaleElementReferenceException)
            {
                // Drawn anew meanwhile: look again.
            }

            if (DateTime.UtcNow > end)
            {
                throw new TimeoutException($"Did not come to see {what}. The page says: {string.Concat(driver.FindElement(By.TagName("body")).Text.Take(MostTold))}");
            }

            Task.Delay(50).Wait();
        }
    }
}

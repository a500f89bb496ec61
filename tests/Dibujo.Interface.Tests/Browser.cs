using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Dibujo.Interface.Tests;

/// <summary>A person at a browser: sees, presses, types.</summary>
internal sealed class Browser : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);
    private readonly ChromeDriver driver;
    private readonly Uri address;

    internal Browser(Uri address)
    {
        this.address = address;
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", "--window-size=1280,800", "--lang=en",
            $"--user-data-dir={Directory.CreateTempSubdirectory("dibujo-chromium-").FullName}");
        driver = new(ChromeDriverService.CreateDefaultService("/usr/bin"), options, TimeSpan.FromMinutes(2));
    }

    public void Dispose() => driver.Quit();

    internal void SignIn(string person)
    {
        Open("/");
        Type("input[name=userName]", person);
        Type("input[name=password]", "quillhaven" + Keys.Enter);
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

    internal void SeeNothing(string css) => Until($"no {css}", () => driver.FindElements(By.CssSelector(css)).Count == 0 ? "" : null);

    /// <summary>Waits until some such element has this text in it.</summary>
    internal IWebElement See(string css, string text) => Until(
        $"{css} with “{text}”",
        () => driver.FindElements(By.CssSelector(css)).FirstOrDefault(e => e.Displayed && e.Text.Contains(text, StringComparison.Ordinal)));

    internal void Press(string css) => Act(() => See(css).Click());

    internal void Press(string css, string text) => Act(() => See(css, text).Click());

    internal void Type(string css, string text) => Act(() => See(css).SendKeys(text));

    /// <summary>Types where the focus is.</summary>
    internal void Keyboard(string keys) => driver.SwitchTo().ActiveElement().SendKeys(keys);

    /// <summary>Presses a blank of a sentence, filters by typing, and takes the first that is left.</summary>
    internal void FillBlank(string css, string text)
    {
        Press(css);
        See("input[aria-label^='Find']");
        Keyboard(text);
        See("[role=option][data-combobox-selected]");
        Keyboard(Keys.Enter);
        SeeNothing("input[aria-label^='Find']");
    }

    internal string? Attribute(string css, string name) => See(css).GetDomAttribute(name);

    /// <summary>Runs a script in each page that is opened from now on, before anything else in it.</summary>
    internal void BeforeEachPage(string script) =>
        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = script });

    /// <summary>Has the page tell something of itself.</summary>
    internal object? Evaluate(string script) => driver.ExecuteScript($"return {script}");

    private static void Act(Action action)
    {
        for (var attempt = 0; ; attempt++)
        {
            try
            {
                action();
                return;
            }
            catch (WebDriverException e) when (attempt < 20 && e is StaleElementReferenceException or ElementClickInterceptedException or ElementNotInteractableException)
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
                throw new TimeoutException($"Did not come to see {what}. The page says: {driver.FindElement(By.TagName("body")).Text}");
            }

            Task.Delay(50).Wait();
        }
    }
}

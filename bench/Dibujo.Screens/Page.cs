using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Dibujo.Screens;

/// <summary>A browser with a profile of its own that tells when what came to be seen.</summary>
internal sealed class Page : IDisposable
{
    /// <summary>Runs in each page before anything else: notes marks, long tasks and how long keys took to be painted.</summary>
    private const string Observer = """
        window.seen = {}; window.longTasks = []; window.keys = [];
        const look = () => {
          for (const [name, css] of [['drawn', '[data-field]'], ['live', '[data-live=true]'], ['rows', '[data-row]'], ['rules', '[data-rule]']])
            if (!(name in seen) && document.querySelector(css)) requestAnimationFrame(() => (seen[name] ??= performance.now()));
        };
        new MutationObserver(look).observe(document, { subtree: true, childList: true, attributes: true, attributeFilter: ['data-live'] });
        new PerformanceObserver((list) => longTasks.push(...list.getEntries().map((e) => [e.startTime, e.duration]))).observe({ type: 'longtask', buffered: true });
        new PerformanceObserver((list) => {
          for (const e of list.getEntries()) if (e.name === 'keydown' || e.name === 'input' || e.name === 'keyup' || e.name === 'beforeinput') keys.push([e.interactionId, e.startTime, e.duration]);
        }).observe({ type: 'event', durationThreshold: 16, buffered: true });
        """;

    private readonly ChromeDriver driver;
    private readonly Uri address;
    private readonly string profile = Directory.CreateTempSubdirectory("dibujo-screens-").FullName;

    internal Page(Uri address, IEnumerable<System.Net.Cookie> cookies)
    {
        this.address = address;
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", "--window-size=1280,943", "--lang=en", $"--user-data-dir={profile}");
        driver = new(ChromeDriverService.CreateDefaultService("/usr/bin"), options, TimeSpan.FromMinutes(2));
        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = Observer });
        driver.ExecuteCdpCommand("Performance.enable", []);
        driver.Navigate().GoToUrl(new Uri(address, "/health"));
        foreach (var cookie in cookies)
        {
            driver.Manage().Cookies.AddCookie(new Cookie(cookie.Name, cookie.Value));
        }
    }

    public void Dispose()
    {
        driver.Quit();
        driver.Dispose();
        try
        {
            Directory.Delete(profile, recursive: true);
        }
        catch (IOException)
        {
            // The browser is still putting things away.
        }
    }

    internal void Open(string path) => driver.Navigate().GoToUrl(new Uri(address, path));

    internal T Run<T>(string script, params object[] operands) => (T)driver.ExecuteScript(script, operands)!;

    /// <summary>Runs a script that hands its figures over when it is done.</summary>
    internal IReadOnlyList<double> RunAsync(string script, params object[] operands)
    {
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromMinutes(2);
        return [.. ((IEnumerable<object>)driver.ExecuteAsyncScript(script, operands)!).Select(figure => Convert.ToDouble(figure, CultureInfo.InvariantCulture))];
    }

    internal double Number(string script, params object[] operands) => Convert.ToDouble(driver.ExecuteScript($"return {script}", operands), CultureInfo.InvariantCulture);

    /// <summary>Milliseconds after which something was seen for the first time since the page was opened or <see cref="Forget"/>.</summary>
    internal double Seen(string what)
    {
        Until($"'{what}' in seen");
        return Number($"seen.{what}");
    }

    internal void Forget() => driver.ExecuteScript("seen = {}; longTasks = []; keys = [];");

    /// <summary>Seconds for which the page's painting thread has been busy since it was opened.</summary>
    internal double Busy()
    {
        var answer = (Dictionary<string, object>)driver.ExecuteCdpCommand("Performance.getMetrics", [])!;
        return ((object[])answer["metrics"]).Cast<Dictionary<string, object>>().Where(metric => (string)metric["name"] == "TaskDuration")
            .Select(metric => Convert.ToDouble(metric["value"], CultureInfo.InvariantCulture)).Single();
    }

    internal void Until(string condition)
    {
        var end = DateTime.UtcNow.AddSeconds(60);
        while (driver.ExecuteScript($"return !!({condition})") is not true)
        {
            if (DateTime.UtcNow > end)
            {
                throw new TimeoutException($"{condition}. The page says: {driver.FindElement(By.TagName("body")).Text[..300]}");
            }

            Thread.Sleep(10);
        }
    }

    internal void Press(string css) => driver.FindElement(By.CssSelector(css)).Click();

    internal void Focus(string css) => driver.ExecuteScript("document.querySelector(arguments[0]).focus()", css);

    internal void Key(string key) => driver.SwitchTo().ActiveElement().SendKeys(key);

    internal static void Rest(int milliseconds) => Thread.Sleep(milliseconds);
}

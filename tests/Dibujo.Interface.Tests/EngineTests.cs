namespace Dibujo.Interface.Tests;

/// <summary>The engine beside the page: it holds nobody up and loses nothing.</summary>
public sealed class EngineTests(Server server) : IClassFixture<Server>
{
    /// <summary>Notes the fields of which React draws the cell at each commit, by what it tells developer tools (also in a build for production).</summary>
    private const string CountDrawings = """
        window.drawn = [];
        const performed = 1;
        const walk = (fiber, before) => {
          const props = fiber.memoizedProps;
          if (fiber.flags & performed && props && props.field && props.record && 'showHidden' in props) drawn.push(props.field.key);
          if (before && fiber.child === before.child) return;
          for (let child = fiber.child; child; child = child.sibling) walk(child, child.alternate);
        };
        window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
          supportsFiber: true, renderers: new Map(), inject: () => 1, checkDCE() {}, onCommitFiberUnmount() {}, onPostCommitFiberRoot() {}, onScheduleFiberRoot() {},
          onCommitFiberRoot: (id, root) => walk(root.current, root.current.alternate),
        };
        """;

    /// <summary>What each cell looks like.</summary>
    private const string Cells = "Object.fromEntries([...document.querySelectorAll('[data-field]')].map((cell) => [cell.dataset.field, cell.outerHTML + [...cell.querySelectorAll('input, textarea')].map((input) => input.value + input.checked)]))";

    /// <summary>Keeps the page's workers where a test can get at them.</summary>
    private const string KeepWorkers = """
        window.workers = [];
        const Begun = window.Worker;
        window.Worker = class extends Begun { constructor(...operands) { super(...operands); window.workers.push(this); } };
        """;

    [Fact]
    public void A_key_draws_its_field_and_those_that_differ_and_no_other()
    {
        using var browser = new Browser(server.Address);
        browser.BeforeEachPage(CountDrawings);
        browser.SignIn("lorenz", "/types/object-loan/records/new");
        browser.See("[data-live=true]");
        browser.See("section[aria-label='What is missing'] strong");

        Assert.Equal(["title"], DrawnBy(browser, () => browser.Type("#field-title", "B")));
        browser.Press("[role=tab]", "Transport");
        browser.See("[data-field=crateNeeded]");
        var drawn = DrawnBy(browser, () => browser.Press("[data-field=crateNeeded] label", "Yes"));
        var other = Told(browser, $"Object.entries({Cells}).filter(([key, look]) => before[key] !== look).map(([key]) => key)");
        Assert.Contains("crateLength", drawn);
        Assert.Superset(drawn, other.Append("crateNeeded").ToHashSet(StringComparer.Ordinal));
    }

    [Fact]
    public void Where_the_engine_dies_it_is_started_again_with_what_was_typed()
    {
        using var browser = new Browser(server.Address);
        browser.BeforeEachPage(KeepWorkers);
        browser.SignIn("lorenz", "/types/object-loan/records/new");
        browser.See("[data-live=true]");
        browser.Type("#field-title", "Blue Lan");

        browser.Evaluate("(workers.at(-1).dispatchEvent(new ErrorEvent('error', { message: 'out of memory' })), 0)");
        browser.Type("#field-title", "tern");

        browser.See("[data-live=true]");
        Assert.Equal("Blue Lantern", browser.Evaluate("document.querySelector('#field-title').value"));
        Assert.Equal(2L, browser.Evaluate("workers.length"));
        browser.See("aside", "1 change here");
        browser.Press("[role=tab]", "Transport");
        browser.Press("[data-field=crateNeeded] label", "Yes");
        browser.See("[data-field=crateLength]");
    }

    [Fact]
    public void What_is_typed_before_the_engine_is_there_is_kept_and_judged()
    {
        using var browser = new Browser(server.Address);
        // As on a slow line: the engine comes when it is told to.
        browser.BeforeEachPage("""
            window.held = [];
            const Begun = window.Worker;
            window.Worker = class extends Begun { postMessage(...operands) { if (window.held) window.held.push(() => super.postMessage(...operands)); else super.postMessage(...operands); } };
            window.release = () => { const waiting = window.held; window.held = null; waiting.forEach((send) => send()); };
            """);
        browser.SignIn("lorenz", "/types/object-loan/records/new");
        browser.See("[data-field=crateNeeded], #field-title");
        browser.Type("#field-title", "Blue Lantern");
        browser.Press("[role=tab]", "Transport");
        browser.Press("[data-field=crateNeeded] label", "Yes");
        browser.See("[data-live=false]");

        browser.Evaluate("(release(), 0)");

        browser.See("[data-live=true]");
        browser.See("[data-field=crateLength]");
        browser.See("aside", "2 changes here");
    }

    private static HashSet<string> DrawnBy(Browser browser, Action action)
    {
        browser.Evaluate($"(window.before = {Cells}, window.drawn.length = 0)");
        action();
        // Until the answer has been drawn.
        Task.Delay(600).Wait();
        return Told(browser, "[...new Set(drawn)]");
    }

    private static HashSet<string> Told(Browser browser, string script) =>
        ((IEnumerable<object>)browser.Evaluate(script)!).Cast<string>().ToHashSet(StringComparer.Ordinal);
}

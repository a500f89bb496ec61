using System.Diagnostics;
using Dibujo.Endurance;

namespace Dibujo.Screens;

/// <summary>What a person waits for on the main screens, from cold browsers, in the order in which it is met.</summary>
internal sealed class ScreenTimes(Uri address, Client administrator, int tries)
{
    private const string Loans = "object-loan";

    /// <summary>Measures one thing after another.</summary>
    internal async IAsyncEnumerable<Figures> MeasureAsync(bool demoOnly)
    {
        var loans = await RecordsAsync(Loans);
        foreach (var figures in Records(Loans, loans).Concat(Table(Loans, "demo")).Concat(Keys(Loans, loans[0], "demo record", "f", "title")))
        {
            yield return figures;
        }

        if (demoOnly)
        {
            yield break;
        }

        var site = new Site(administrator);
        foreach (var (rules, goal, compiling) in new[] { (100, "–", "–"), (500, "80", "–"), (1000, "–", "50"), (10_000, "–", "150") })
        {
            var ids = await site.UseAsync(WideForm.With(Site.RecordType, rules), 3);
            if (rules == 500)
            {
                foreach (var figures in Keys(Site.RecordType, ids[0], "300 fields, 500 rules, 30 on the tab", "1", WideForm.Name(1)).Concat(SheetKeys(rules)).Concat(CellKeys(rules)))
                {
                    yield return figures;
                }
            }

            yield return Cold($"a record's address opened cold, {rules} rules: live", "s", "–", $"/records/{ids[0]}", tries, "live");
            yield return Edit(Site.RecordType, $"{rules} rules", goal);
            yield return Compile(Site.RecordType, $"{rules} rules", compiling);
            if (rules == 1000)
            {
                yield return await ServerAsync(ids[0]);
            }
        }

        var whole = await site.UseAsync(WideForm.With(Site.RecordType, 500, isOneTab: true), 2);
        foreach (var figures in Keys(Site.RecordType, whole[0], "all 300 fields on one tab", "1", WideForm.Name(1)))
        {
            yield return figures;
        }
    }

    /// <summary>Only what an administrator waits for who writes rules: 500 of them, and 1,000.</summary>
    internal async IAsyncEnumerable<Figures> MeasureDraftingAsync()
    {
        var site = new Site(administrator);
        foreach (var rules in new[] { 500, 1000 })
        {
            await site.UseAsync(WideForm.With(Site.RecordType, rules), 3);
            yield return Edit(Site.RecordType, $"{rules} rules", "32, 80 at worst");
            yield return Compile(Site.RecordType, $"{rules} rules", "–");
            yield return OpenRule(Site.RecordType, $"{rules} rules", "100");
            foreach (var figures in SheetKeys(rules))
            {
                yield return figures;
            }
        }
    }

    /// <summary>Only how long keys take: on a form of 300 fields under 500 rules, one tab or ten, and in a cell of a list.</summary>
    internal async IAsyncEnumerable<Figures> MeasureKeysAsync()
    {
        var site = new Site(administrator);
        foreach (var isOneTab in (bool[])[false, true])
        {
            var ids = await site.UseAsync(WideForm.With(Site.RecordType, 500, isOneTab), 3);
            foreach (var figures in Keys(Site.RecordType, ids[0], isOneTab ? "all 300 fields on one tab, 500 rules" : "300 fields, 500 rules, 30 on the tab", "1", WideForm.Name(1)))
            {
                yield return figures;
            }
        }

        foreach (var figures in CellKeys(500))
        {
            yield return figures;
        }
    }

    private async Task<int[]> RecordsAsync(string type) =>
        [.. (await administrator.ReadAsync($"/api/record-types/{type}/records"))["rows"]!.AsArray().Select(row => row!["id"]!.GetValue<int>())];

    private Page NewPage() => new(address, administrator.Cookies);

    private Figures Cold(string what, string unit, string goal, string path, int times, string until)
    {
        var all = new List<double>();
        for (var i = 0; i < times; i++)
        {
            using var page = NewPage();
            page.Open(path);
            all.Add(page.Seen(until) / 1000);
        }

        return new(what, unit, goal, all);
    }

    private IEnumerable<Figures> Records(string type, int[] ids)
    {
        List<double> drawn = [], live = [], busy = [], first = [], next = [], form = [], after = [];
        for (var i = 0; i < tries; i++)
        {
            using var page = NewPage();
            page.Open($"/records/{ids[0]}");
            live.Add(page.Seen("live") / 1000);
            busy.Add(page.Busy());
            drawn.Add(page.Seen("drawn") / 1000);
            Page.Rest(600);
            after.Add(page.Number($"Math.max(0, ...longTasks.filter(([start]) => start > seen.drawn).map(([, duration]) => duration))"));
        }

        for (var i = 0; i < tries; i++)
        {
            using var page = NewPage();
            page.Open($"/types/{type}/records");
            page.Seen("rows");
            // While the list is read.
            Page.Rest(2500);
            first.Add(Follow(page, $"a[href='/records/{ids[0]}']"));
            page.Run<object?>("history.back()");
            page.Until($"document.querySelector(\"a[href='/records/{ids[1]}']\")");
            Page.Rest(300);
            next.Add(Follow(page, $"a[href='/records/{ids[1]}']"));
            Page.Rest(300);
            form.Add(Follow(page, "nav[aria-label=Form] a:not([aria-current])"));
        }

        yield return new("a record's address opened cold: drawn", "s", "0.7", drawn);
        yield return new("a record's address opened cold: live", "s", "1.6", live);
        yield return new("painting thread busy until that record is live", "s", "0.6", busy);
        yield return new("longest task of the painting thread after it is drawn (0: none over 50)", "ms", "none", after);
        yield return new("the first record of a visit, from the click in the list to live", "s", "0.4", first);
        yield return new("the next record, from the click to live", "s", "0.1", next);
        yield return new("another form of the same record, from the click to live", "s", "0.1", form);
    }

    /// <summary>Seconds from pressing a link to the live form behind it.</summary>
    private static double Follow(Page page, string css)
    {
        page.Run<object?>("document.querySelector(arguments[0]).addEventListener('click', () => { seen = {}; window.pressed = performance.now(); }, { capture: true, once: true })", css);
        page.Press(css);
        page.Until("window.pressed && 'live' in seen && seen.live > pressed");
        return page.Number("(seen.live - pressed) / 1000");
    }

    private IEnumerable<Figures> Table(string type, string what)
    {
        yield return Cold("the drafting table's address opened cold: live", "s", "2.0", $"/types/{type}/rules", tries, "live");
        var all = new List<double>();
        for (var i = 0; i < tries; i++)
        {
            using var page = NewPage();
            page.Open("/");
            page.Until($"document.querySelector(\"a[href='/types/{type}/rules']\")");
            Page.Rest(2500);
            all.Add(Follow(page, $"a[href='/types/{type}/rules']"));
        }

        yield return new("the drafting table from a click: live", "s", "0.8", all);
        yield return Edit(type, what, "50");
        yield return Compile(type, what, "16");
        yield return Arrival(type);
    }

    /// <summary>Switches a rule off and on: from the press to what another administrator sees who has the same draft open.</summary>
    private Figures Arrival(string type)
    {
        const string Now = "performance.timeOrigin + performance.now()";
        using var here = NewPage();
        using var there = NewPage();
        foreach (var page in (Page[])[here, there])
        {
            page.Open($"/types/{type}/rules");
            page.Seen("live");
        }

        here.Press("[data-rule] button");
        here.Until("document.querySelector('[data-open] input[role=switch]')");
        var times = new List<double>();
        for (var i = 0; i < tries; i++)
        {
            Page.Rest(900);
            there.Run<object?>($$"""
                window.arrived = undefined;
                const was = document.querySelector('[data-rule]').hasAttribute('data-off');
                const watch = new MutationObserver(() => {
                  if (document.querySelector('[data-rule]').hasAttribute('data-off') !== was) { watch.disconnect(); window.arrived = {{Now}}; }
                });
                watch.observe(document, { subtree: true, attributes: true, childList: true });
                """);
            here.Run<object?>($"window.pressed = {Now}; document.querySelector('[data-open] input[role=switch]').click()");
            there.Until("window.arrived !== undefined");
            times.Add(there.Number("arrived") - here.Number("pressed"));
        }

        return new("an edit to what another administrator sees of it", "ms", "1000", times);
    }

    /// <summary>Asks a worker of its own to take over an edit: from the question to the answer.</summary>
    private Figures Compile(string type, string what, string goal)
    {
        using var page = NewPage();
        page.Open($"/types/{type}/rules");
        page.Seen("live");
        var times = page.RunAsync("""
            const [type, tries, done] = arguments;
            const script = performance.getEntriesByType('resource').find((entry) => /\/worker-[^/]*\.js$/.test(entry.name)).name;
            const worker = new Worker(script, { type: 'module' });
            const ask = (operation, ...operands) => new Promise((then) => {
              worker.onmessage = ({ data }) => then(data.result);
              worker.postMessage({ id: 1, operation, operands });
            });
            (async () => {
              const { definition } = await (await fetch(`/api/record-types/${type}/draft`)).json();
              const { rules } = definition;
              const { program } = await ask('draft', definition);
              const times = [];
              for (let i = 0; i < tries + 5; i++) {
                const place = i % rules.length;
                const cases = rules[place].cases?.map((one) => ({ ...one, effects: [...one.effects, { kind: 'message', severity: 'note', text: `${i}` }] }));
                // A number stands for a rule that is known.
                const edited = rules.map((rule, at) => (at === place ? { ...rule, cases } : at));
                const begun = performance.now();
                await ask('edit', program, edited);
                times.push(performance.now() - begun);
              }
              worker.terminate();
              done(times.slice(5));
            })();
            """, type, tries);
        return new($"compiling after an edit, with the way to the worker and back: {what}", "ms", goal, times);
    }

    /// <summary>Switches a rule that is in force off and on again: from the press to the repainted sheet.</summary>
    private Figures Edit(string type, string what, string goal)
    {
        using var page = NewPage();
        page.Open($"/types/{type}/rules");
        page.Seen("live");
        page.Until("document.querySelector('[data-rule][data-in-force]')");
        page.Press("[data-rule][data-in-force] button");
        page.Until("document.querySelector('[data-open] input[role=switch]')");
        var times = new List<double>();
        for (var i = 0; i < tries; i++)
        {
            Page.Rest(900);
            page.Run<object?>("""
                window.repainted = undefined;
                const row = document.querySelector('[data-open]'), was = row.hasAttribute('data-in-force');
                const input = row.querySelector('input[role=switch]');
                input.addEventListener('click', () => {
                  const begun = performance.now();
                  const watch = new MutationObserver(() => {
                    const now = document.querySelector('[data-open]');
                    if (now && now.hasAttribute('data-in-force') !== was) { watch.disconnect(); requestAnimationFrame(() => setTimeout(() => (window.repainted = performance.now() - begun))); }
                  });
                  watch.observe(document, { subtree: true, attributes: true, childList: true });
                }, { capture: true, once: true });
                """);
            page.Run<object?>("document.querySelector('[data-open] input[role=switch]').click()");
            page.Until("window.repainted !== undefined");
            times.Add(page.Number("repainted"));
        }

        return new($"an edit to the repainted sheet: {what}", "ms", goal, times);
    }

    /// <summary>Opens one rule after another: from the press to its blanks.</summary>
    private Figures OpenRule(string type, string what, string goal)
    {
        using var page = NewPage();
        page.Open($"/types/{type}/rules");
        page.Seen("live");
        page.Until("document.querySelectorAll('[data-rule]').length > 3");
        var times = new List<double>();
        for (var i = 0; i < tries + 2; i++)
        {
            Page.Rest(500);
            page.Run<object?>("""
                window.opened = undefined;
                const row = [...document.querySelectorAll('[data-rule]:not([data-open])')][arguments[0] % 3];
                const { rule } = row.dataset, begun = performance.now();
                const watch = new MutationObserver(() => {
                  if (document.querySelector(`[data-rule="${rule}"] [data-blank]`)) { watch.disconnect(); requestAnimationFrame(() => setTimeout(() => (window.opened = performance.now() - begun))); }
                });
                watch.observe(document, { subtree: true, childList: true });
                row.querySelector('button').click();
                """, i);
            page.Until("window.opened !== undefined");
            times.Add(page.Number("opened"));
        }

        return new($"opening a rule: {what}", "ms", goal, [.. times.Skip(2)]);
    }

    private IEnumerable<Figures> Keys(string type, int id, string what, string key, string field)
    {
        using var page = NewPage();
        page.Open($"/records/{id}");
        page.Seen("live");
        yield return Type(page, what, key, field);
    }

    private IEnumerable<Figures> SheetKeys(int rules)
    {
        using var page = NewPage();
        page.Open($"/types/{Site.RecordType}/rules");
        page.Seen("live");
        yield return Type(page, $"drafting table's sheet, {rules} rules", "1", WideForm.Name(1));
    }

    /// <summary>A cell of a list, in a row of which thirty fields are seen.</summary>
    private IEnumerable<Figures> CellKeys(int rules)
    {
        using var page = NewPage();
        var columns = string.Join(',', Enumerable.Range(0, 30).Select(i => $$"""{"key":"{{WideForm.Name(i)}}","width":110}"""));
        page.Open($"/types/{Site.RecordType}/records?list={Uri.EscapeDataString($$"""{"columns":[{{columns}}]}""")}");
        page.Seen("rows");
        Page.Rest(2500);
        page.Press($"[data-row] [data-column={WideForm.Name(1)}]");
        page.Focus("[role=grid]");
        page.Key(OpenQA.Selenium.Keys.Enter);
        page.Until($"document.activeElement.id === 'field-{WideForm.Name(1)}'");
        Page.Rest(1500);
        yield return Type(page, $"cell of a list, 30 columns, {rules} rules", "1", WideForm.Name(1));
    }

    /// <summary>Types into a field that drives others; how long each key took to be painted, by Event Timing, in steps of 8 ms.</summary>
    private Figures Type(Page page, string what, string key, string field)
    {
        page.Focus($"#field-{field}");
        page.Key(key);
        Page.Rest(500);
        page.Forget();
        for (var i = 0; i < Math.Max(tries, 20) * 2; i++)
        {
            page.Key(i % 2 == 0 ? OpenQA.Selenium.Keys.Backspace : key);
            Page.Rest(120);
        }

        Page.Rest(300);
        var keys = page.Run<IReadOnlyCollection<object>>("""
            const byKey = new Map();
            for (const [id, , duration] of keys) byKey.set(id, Math.max(byKey.get(id) ?? 0, duration));
            return [...byKey.entries()].filter(([id]) => id > 0).map(([, duration]) => duration);
            """);
        // What was painted within 16 ms is not told one by one.
        var told = keys.Select(duration => Convert.ToDouble(duration, System.Globalization.CultureInfo.InvariantCulture)).ToList();
        told.AddRange(Enumerable.Repeat(16.0, Math.Max(0, (Math.Max(tries, 20) * 2) - told.Count)));
        return new($"key on a driver to the paint: {what}", "ms", "16 / 32 / 40", told);
    }

    private async Task<Figures> ServerAsync(int id)
    {
        var all = new List<double>();
        for (var i = 0; i < tries + 5; i++)
        {
            var begun = Stopwatch.GetTimestamp();
            _ = await administrator.ReadAsync($"/api/records/{id}");
            all.Add(Stopwatch.GetElapsedTime(begun).TotalMilliseconds);
        }

        return new("server: opening a record, 1000 rules, warm", "ms", "5", [.. all.Skip(5)]);
    }
}

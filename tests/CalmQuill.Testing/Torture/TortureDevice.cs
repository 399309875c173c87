using System.Text.Json;
using CalmQuill.Core.Operations;
using OpenQA.Selenium;

namespace CalmQuill.Testing.Torture;

/// <summary>One device: a browser with a store, a clock and a network of its own, and one tab or more that write.</summary>
internal sealed class TortureDevice : IDisposable
{
    private readonly string email,
        place;
    private readonly long clock;
    private readonly Browser browser;
    private readonly List<string> tabs = [];

    /// <param name="server">The server.</param>
    /// <param name="email">Whose device it is.</param>
    /// <param name="place">What all write in, as JSON.</param>
    /// <param name="clock">By how much its clock is off, ms.</param>
    public TortureDevice(Uri server, string email, string place, long clock)
    {
        (this.email, this.place, this.clock) = (email, place, clock);
        Network = new CuttableProxy(server);
        browser = new Browser(Network.Address);
        browser.Driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(90);
        // One tab that does nothing keeps the browser open.
        browser.Driver.Navigate().GoToUrl("about:blank");
        home = browser.Driver.CurrentWindowHandle;
    }

    private readonly string home;

    public CuttableProxy Network { get; }

    public void OpenTab(int seed)
    {
        browser.Driver.SwitchTo().Window(home);
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        tabs.Add(browser.Driver.CurrentWindowHandle);
        browser.Until(
            () =>
            {
                browser.Go("/");
                return (bool)browser.Script("return globalThis.torture !== undefined")!;
            },
            "the tab"
        );
        var chaos = JsonSerializer.Serialize(
            new
            {
                seed,
                unsent = 0.05,
                cut = 0.15,
                twice = 0.1,
                late = 0.15,
                aborted = 0.05,
                clock,
            }
        );
        Await(
            "torture.start(arguments[0], arguments[1], JSON.parse(arguments[2]), JSON.parse(arguments[3]))",
            email,
            QuillHost.Password,
            place,
            chaos
        );
    }

    /// <summary>Every tab makes some changes.</summary>
    /// <returns>How many.</returns>
    public int Act(int seed, int count)
    {
        foreach (var tab in tabs)
        {
            browser.Driver.SwitchTo().Window(tab);
            browser.Script("torture.act(arguments[0], arguments[1])", seed, count);
        }

        return count * tabs.Count;
    }

    /// <summary>A tab makes some changes and is closed before anything came of them.</summary>
    public void ActAndClose(int seed, int count, Random random)
    {
        var tab = tabs[random.Next(tabs.Count)];
        tabs.Remove(tab);
        browser.Driver.SwitchTo().Window(tab);
        browser.Script("torture.act(arguments[0], arguments[1])", seed, count);
        browser.Driver.Close();
    }

    public void Turn()
    {
        foreach (var tab in tabs)
        {
            browser.Driver.SwitchTo().Window(tab);
            Await("torture.turn(JSON.parse(arguments[0]))", place);
        }
    }

    /// <summary>What the tabs have shown as kept or saved since they were asked last, each as document and batch.</summary>
    public IEnumerable<string> Take(TortureReport report)
    {
        foreach (var tab in tabs.ToList())
        {
            browser.Driver.SwitchTo().Window(tab);
            using var taken = JsonDocument.Parse((string)browser.Script("const taken = JSON.stringify(torture.take()); return taken")!);
            foreach (var list in new[] { "kept", "saved" })
            {
                foreach (var line in taken.RootElement.GetProperty(list).EnumerateArray())
                    yield return line.GetString()!;
            }

            Count(tab, taken.RootElement.GetProperty("counts"), report);
        }
    }

    private readonly Dictionary<string, long[]> counted = [];

    private void Count(string tab, JsonElement counts, TortureReport report)
    {
        long[] now = [.. new[] { "cut", "unsent", "twice", "late", "aborted" }.Select(name => counts.GetProperty(name).GetInt64())];
        var before = counted.GetValueOrDefault(tab, new long[5]);
        counted[tab] = now;
        report.RequestsCut += now[0] - before[0] + now[1] - before[1];
        report.RequestsTwice += now[2] - before[2];
        report.AnswersLate += now[3] - before[3];
        report.TransactionsAborted += now[4] - before[4];
    }

    /// <summary>Nothing goes wrong any more, and all that waits is sent. What does not come to rest is said.</summary>
    public IEnumerable<string> Settle()
    {
        // Twice, since what one tab has sent the others must hear of.
        foreach (var tab in tabs.Concat(tabs).ToList())
        {
            browser.Driver.SwitchTo().Window(tab);
            var problem = (string)Await("torture.settle()")!;
            if (problem.Length > 0)
                yield return $"{email}: {problem}";
        }
    }

    /// <summary>Where a tab shows something else than the server's operations come to.</summary>
    public IEnumerable<string> Differences(Dictionary<string, List<Operation>> stored, string when)
    {
        foreach (var tab in tabs)
        {
            browser.Driver.SwitchTo().Window(tab);
            using var states = JsonDocument.Parse((string)browser.Script("return JSON.stringify(torture.states())")!);
            foreach (var (address, operations) in stored)
            {
                if (states.RootElement.GetProperty(address).GetString() != TortureRun.StateOf(address, operations))
                    yield return $"{email} shows {address} differently {when}";
            }
        }
    }

    public void Reopen(int seed)
    {
        foreach (var tab in tabs)
        {
            browser.Driver.SwitchTo().Window(tab);
            browser.Driver.Close();
        }

        tabs.Clear();
        counted.Clear();
        OpenTab(seed);
    }

    public void Dispose()
    {
        browser.Dispose();
        Network.Dispose();
    }

    private object? Await(string expression, params object[] arguments) =>
        browser.Driver.ExecuteAsyncScript(
            $"const done = arguments[arguments.length - 1]; ({expression}).then((answer) => done(answer ?? ''), (problem) => done('threw: ' + (problem?.stack ?? problem)));",
            arguments
        ) switch
        {
            string text when text.StartsWith("threw: ", StringComparison.Ordinal) => throw new InvalidOperationException(text),
            var answer => answer,
        };
}

using System.Diagnostics;
using System.Text.RegularExpressions;
using CalmQuill.Testing;
using CalmQuill.Testing.Torture;

namespace CalmQuill.Bench;

/// <summary>The long form of the torture test, with PostgreSQL killed as well: runs of some dozens of kills each, every one with a seed of its own.</summary>
internal static partial class TortureBench
{
    private const int KillsARun = 50;

    /// <param name="kills">How many in all.</param>
    /// <param name="seed">Of the first run; drawn when none is given.</param>
    /// <param name="write">Whether the figures go into docs/reliability.md.</param>
    /// <returns>The exit code: 1 when something was lost, or shown differently.</returns>
    public static async Task<int> Run(int kills, int? seed, bool write)
    {
        var reports = new List<TortureReport>();
        var time = Stopwatch.StartNew();
        while (reports.Sum(report => report.Kills) < kills)
        {
            var own = reports.Count == 0 && seed is { } given ? given : Random.Shared.Next();
            Console.WriteLine($"seed {own}");
            await using var run = new TortureRun(own, CrashDatabase);
            var report = await run.Run(Math.Min(KillsARun, kills - reports.Sum(one => one.Kills)), Console.WriteLine);
            Console.WriteLine(report);
            reports.Add(report);
        }

        var line = FormattableString.Invariant(
            $"{reports.Count} runs in {time.Elapsed.TotalMinutes:0} minutes, {reports.Sum(report => report.Acts):#,0} changes by two people on three devices with four tabs: {reports.Sum(report => report.Kills)} kills ({reports.Sum(report => report.ServerKills)} of the server, {reports.Sum(report => report.DatabaseKills)} of PostgreSQL, {reports.Sum(report => report.TabsClosed)} of tabs), {reports.Sum(report => report.NetworksCut)} networks cut, {reports.Sum(report => report.RequestsCut):#,0} requests cut, {reports.Sum(report => report.RequestsTwice):#,0} sent twice, {reports.Sum(report => report.AnswersLate):#,0} answered late, {reports.Sum(report => report.TransactionsAborted):#,0} transactions of devices' stores aborted. Of {reports.Sum(report => report.Promised):#,0} operations that a device had shown as kept or saved, {(reports.TrueForAll(report => report.Faults.Count == 0) ? "none was lost, and all devices, the server's operations and its lists said the same" : "SOMETHING WAS LOST: " + string.Join("; ", reports.SelectMany(report => report.Faults)))}"
        );
        Console.WriteLine(line);
        if (write)
        {
            var file = Path.Combine(Repository.Root, "docs/reliability.md");
            await File.WriteAllTextAsync(
                file,
                Figure().Replace(await File.ReadAllTextAsync(file), $"<!-- torture -->{line}.<!-- /torture -->")
            );
        }

        return reports.TrueForAll(report => report.Faults.Count == 0) ? 0 : 1;
    }

    /// <summary>As a power cut does it: the main process is gone, and it starts again from what was written.</summary>
    private static async Task CrashDatabase()
    {
        using var quill = Process.Start(new ProcessStartInfo(Path.Combine(Repository.Root, "quill"), "crash-test-database"))!;
        await quill.WaitForExitAsync();
        if (quill.ExitCode != 0)
            throw new InvalidOperationException("PostgreSQL does not start again.");
        Npgsql.NpgsqlConnection.ClearAllPools();
    }

    [GeneratedRegex("<!-- torture -->.*?<!-- /torture -->", RegexOptions.Singleline)]
    private static partial Regex Figure();
}

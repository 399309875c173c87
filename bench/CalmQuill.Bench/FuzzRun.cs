using System.Globalization;
using System.Text.RegularExpressions;
using CalmQuill.Testing;
using CalmQuill.Testing.Fuzz;

namespace CalmQuill.Bench;

/// <summary>The long form of the fuzzer: everything the server can be asked, with values it should not be asked with, in stretches with a seed each.</summary>
internal static partial class FuzzRun
{
    private static readonly TimeSpan Stretch = TimeSpan.FromMinutes(1);

    /// <returns>The exit code: 1 when there was a fault, or something of the demonstration changed.</returns>
    public static async Task<int> Run(TimeSpan time, bool write)
    {
        await using var demo = await DemoUnderFire.Make();
        var before = await demo.Sum();
        var (tried, refused, byStatus, faults, seeds) = (0, 0, new SortedDictionary<int, int>(), new List<string>(), new List<int>());
        for (var left = time; left > TimeSpan.Zero; left -= Stretch)
        {
            var seed = Random.Shared.Next();
            var fuzzed = await demo.Fire(left < Stretch ? left : Stretch, seed);
            seeds.Add(seed);
            tried += fuzzed.Tried;
            refused += fuzzed.Refused;
            foreach (var (status, count) in fuzzed.ByStatus)
                byStatus[status] = byStatus.GetValueOrDefault(status) + count;
            faults.AddRange(fuzzed.Faults.Select(fault => $"seed {seed}: {fault}"));
            Console.WriteLine($"seed {seed}: {fuzzed.Tried} tried, {fuzzed.Refused} refused, {fuzzed.Faults.Count} faults");
        }

        var isSame = await demo.Sum() == before;
        foreach (var fault in faults)
            Console.WriteLine(fault);
        var line = string.Create(
            CultureInfo.InvariantCulture,
            $"{time.TotalMinutes:0.#} minutes, {tried:#,0} requests and hub calls, {refused:#,0} refused with a reason, {faults.Count} faults; answers by status: {string.Join(", ", byStatus.Select(entry => $"{entry.Key}: {entry.Value:#,0}"))}; the demonstration was {(isSame ? "byte for byte what it was" : "CHANGED")}"
        );
        Console.WriteLine(line);
        if (write)
        {
            var file = Path.Combine(Repository.Root, "docs/reliability.md");
            await File.WriteAllTextAsync(file, Figure().Replace(await File.ReadAllTextAsync(file), $"<!-- fuzz -->{line}.<!-- /fuzz -->"));
        }

        return faults.Count == 0 && isSame ? 0 : 1;
    }

    [GeneratedRegex("<!-- fuzz -->.*?<!-- /fuzz -->", RegexOptions.Singleline)]
    private static partial Regex Figure();
}

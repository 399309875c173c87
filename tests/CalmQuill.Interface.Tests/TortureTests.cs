using CalmQuill.Testing.Torture;
using Xunit.Abstractions;

namespace CalmQuill.Interface.Tests;

/// <summary>The short form of <c>./quill bench --torture</c>: a fresh seed each time, which is printed and replays with QUILL_TORTURE_SEED.</summary>
public sealed class TortureTests(ITestOutputHelper output)
{
    private const int Kills = 12;

    [Fact]
    public async Task Whatever_breaks_in_the_middle_nothing_that_was_shown_as_kept_is_lost_and_all_say_the_same()
    {
        var seed = int.TryParse(
            Environment.GetEnvironmentVariable("QUILL_TORTURE_SEED"),
            System.Globalization.CultureInfo.InvariantCulture,
            out var given
        )
            ? given
            : Random.Shared.Next();
        output.WriteLine($"seed {seed}");
        await using var run = new TortureRun(seed);
        var report = await run.Run(Kills, output.WriteLine);
        output.WriteLine(report.ToString());
        Assert.True(report.Faults.Count == 0, report.ToString());
        Assert.True(report.Promised > 20, report.ToString());
    }
}

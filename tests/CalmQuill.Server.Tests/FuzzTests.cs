using System.Net;
using CalmQuill.Testing;
using CalmQuill.Testing.Fuzz;

namespace CalmQuill.Server.Tests;

/// <summary>Everything asked with what it should not be asked with: no fault, and what others wrote is what it was. The long form is <c>./quill bench --fuzz</c>.</summary>
public sealed class FuzzTests
{
    [Fact]
    public async Task Twenty_seconds_of_nasty_requests_end_in_no_fault_and_change_nothing_of_the_demonstration()
    {
        await using var demo = await DemoUnderFire.Make();
        var before = await demo.Sum();
        // A seed of its own for every run; a fault names it.
        var seed = Random.Shared.Next();
        var fuzzed = await demo.Fire(TimeSpan.FromSeconds(20), seed);
        Assert.True(fuzzed.Faults.Count == 0, $"seed {seed}:\n{string.Join('\n', fuzzed.Faults.Take(8))}");
        // It got somewhere: most was refused, not all.
        Assert.InRange(fuzzed.Refused, fuzzed.Tried / 4, fuzzed.Tried - 50);
        Assert.True(fuzzed.Tried > 300, $"{fuzzed.Tried} tried");
        Assert.Equal(before, await demo.Sum());
        using var caller = await Caller.SignIn(demo.Host.Address, "oskar@lantern.example", "lantern-street");
        Assert.Equal(HttpStatusCode.OK, (await caller.Http.GetAsync("/api/desk")).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await caller.Http.GetAsync("/api/follow-ups")).StatusCode);
    }
}

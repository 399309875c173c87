using System.Diagnostics;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Bench;

/// <summary>
/// A typed text of 100,000 letters, beside <c>yjs</c> on Node: taking in what made it, and one key. The letters alone, without setting them in lines.
/// </summary>
internal static class TypingBench
{
    private const int Pieces = 10_000,
        Keys = 5_000,
        KeysAtOnce = 20;

    /// <summary>What a key may take, ms, of which the letters are only a part.</summary>
    private const double KeyBar = 8;

    private static uint seed = 5480;

    public static IEnumerable<Row> Run()
    {
        var reference = Reference.Of("typing.mjs");
        var (openTheirs, keyTheirs) = (reference.GetProperty("open").GetDouble(), reference.GetProperty("key").GetDouble());
        var text = new TypedText();
        var made = new List<(OpId Id, TextChange Change)>();
        for (var i = 0; i < Pieces; i++)
        {
            var id = new OpId(1, (ulong)i + 1);
            var change = new TextChange([text.InsertionAt(Below(text.Length + 1), "pendulum. ")], [], []);
            made.Add((id, change));
            text.Take(id, StampOf(id), change);
        }

        var open = CoreBench.Best(() =>
        {
            var target = new TypedText();
            foreach (var (id, change) in made)
                target.Take(id, StampOf(id), change);
            if (target.Text.Length != text.Length)
                throw new InvalidOperationException("The text taken in is another.");
        });
        var key = Typing(text);
        yield return new Row(
            "taking in a text of 100,000 letters in 10,000 pieces, .NET",
            $"{open:0.0} ms",
            $"{openTheirs:0.0} ms (`yjs`)",
            $"{openTheirs / open:0.0} times as fast",
            "none",
            true
        );
        yield return new Row(
            "a key in it, the letters alone, .NET, p95",
            $"{key * 1000:0} µs",
            $"{keyTheirs * 1000:0} µs (`yjs`)",
            $"{key / keyTheirs:0.0}",
            $"at most {KeyBar} ms with its line",
            key <= KeyBar
        );
    }

    private static double Typing(TypedText text)
    {
        var times = new List<double>(Keys);
        var at = 0;
        Burst? burst = null;
        for (var i = 0; i < Keys; i++)
        {
            if (i % KeysAtOnce == 0)
            {
                at = Below(text.Length);
                burst = new Burst(text, new OpId(2, (ulong)i + 1), Hlc.At(2));
            }

            var watch = Stopwatch.GetTimestamp();
            burst!.Type(at++, "k");
            times.Add(Stopwatch.GetElapsedTime(watch).TotalMilliseconds);
        }

        return InterfaceBench.Percentile(times, 0.95);
    }

    private static Stamp StampOf(OpId id) => new(Hlc.At(1), id);

    private static int Below(int n)
    {
        seed = unchecked(seed * 1664525 + 1013904223);
        return (int)(seed / 4294967296.0 * n);
    }
}

using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CsCheck;

namespace CalmQuill.Testing;

/// <summary>Generators of strokes and of whole histories of operations by several people.</summary>
public static class Generate
{
    public static readonly Guid[] People = [new("00000000-0000-8000-8000-00000000000a"), new("00000000-0000-8000-8000-00000000000b"), new("00000000-0000-8000-8000-00000000000c")];

    public static readonly Gen<Pen> Pen =
        Gen.Select(Gen.Bool.Select(even => even ? PenKind.Ball : PenKind.Fountain), Gen.Int[Core.Ink.Pen.LeastWidth, 300], Gen.UInt).Select((kind, width, colour) => new Pen(kind, width, colour));

    /// <summary>A wandering line of 1 to 30 samples.</summary>
    public static readonly Gen<StrokeSamples> Samples =
        from count in Gen.Int[1, 30]
        from start in Gen.Int[0, 20_000].Array[2]
        from steps in Gen.Int[-300, 300].Array[count * 2]
        from pressure in Gen.Int[0, 1023].Array[count]
        from pace in Gen.Int[0, 20].Array[count]
        from tilt in Gen.Bool
        select Walk(count, start, steps, pressure, pace, tilt);

    /// <summary>What three people did to a page from three devices, each knowing what stands before in the list.</summary>
    public static readonly Gen<List<Operation>> PageHistory =
        Gen.Select(Gen.Int[0, 5], Gen.Int[0, 2], Gen.Int[0, 1000], Gen.Int[0, 1000], Samples, Pen).Array[1, 40].Select(steps =>
        {
            var devices = People.Select((person, i) => new Replica((ulong)i + 7, person)).ToArray();
            var history = new List<Operation>();
            foreach (var (what, who, a, b, samples, pen) in steps)
            {
                var strokes = history.Where(operation => operation.Change is Change.StrokeAdded).ToList();
                var own = history.Where(operation => operation.Author == People[who] && operation.Change is not Change.EffectSet).ToList();
                Change change = new Change.StrokeAdded(pen, 1_700_000_000_000 + a, samples);
                if (what == 1 && strokes.Count > 0) change = new Change.ItemsRemoved([strokes[a % strokes.Count].Id]);
                if (what == 2 && strokes.Count > 0) change = new Change.ItemsShifted([strokes[a % strokes.Count].Id], b - 500, a - 500);
                if (what == 3 && strokes.Count > 0) change = new Change.GapsAdded([new StrokeGaps(strokes[a % strokes.Count].Id, [new Interval(b, b + a)])]);
                if (what >= 4 && own.Count > 0) change = new Change.EffectSet(own[a % own.Count].Id, what == 5);
                // Clocks that disagree by up to a second make the stamps' order differ from the list's.
                history.Add(devices[who].Make(change, 1_700_000_000_000 + history.Count * 50 + b));
            }

            return history;
        });

    /// <summary>What three people did to a library: folders and notebooks made, moved into each other, named, binned.</summary>
    public static readonly Gen<List<Operation>> LibraryHistory =
        Gen.Select(Gen.Int[0, 3], Gen.Int[0, 2], Gen.Int[1, 8], Gen.Int[0, 8], Gen.Int[0, 1000]).Array[1, 40].Select(steps =>
        {
            var devices = People.Select((person, i) => new Replica((ulong)i + 7, person)).ToArray();
            var history = new List<Operation>();
            foreach (var (what, who, node, parent, chance) in steps)
            {
                Change change = what switch
                {
                    0 => new Change.PropertySet(Node(node), Property.Name, $"name {chance}"),
                    1 => new Change.PropertySet(Node(node), Property.Binned, chance % 2 == 0 ? "" : "1700000000000"),
                    _ => new Change.NodePlaced(Node(node), node < 6 ? NodeKind.Folder : NodeKind.Notebook, Node(Math.Min(parent, 5)), OrderKey.Between(null, null, (ulong)chance)),
                };
                history.Add(devices[who].Make(change, 1_700_000_000_000 + history.Count * 50 + chance));
            }

            return history;
        });

    /// <summary>Node 0 is the root.</summary>
    public static Guid Node(int number) => number == 0 ? Guid.Empty : new Guid(number, 0, 0x4000, 0x80, 0, 0, 0, 0, 0, 0, 1);

    /// <summary>An ordinary handwritten wave of so many samples, for tests that need one stroke.</summary>
    public static StrokeSamples Wave(int count, int x = 3000, int y = 5000) => new(
        [.. Enumerable.Range(0, count).Select(i => x + i * 40)],
        [.. Enumerable.Range(0, count).Select(i => y + (int)(250 * Math.Sin(i * 0.35)))],
        [.. Enumerable.Range(0, count).Select(i => 400 + (int)(200 * Math.Sin(i * 0.2)))],
        [.. Enumerable.Range(0, count).Select(i => i * 8)]);

    private static StrokeSamples Walk(int count, int[] start, int[] steps, int[] pressure, int[] pace, bool tilt)
    {
        int[] x = new int[count], y = new int[count], time = new int[count];
        for (var i = 0; i < count; i++)
        {
            x[i] = (i == 0 ? start[0] : x[i - 1]) + steps[2 * i];
            y[i] = (i == 0 ? start[1] : y[i - 1]) + steps[2 * i + 1];
            time[i] = i == 0 ? 0 : time[i - 1] + pace[i];
        }

        return tilt ? new StrokeSamples(x, y, pressure, time, [.. pace.Select(p => p - 10)], [.. pace.Select(p => 10 - p)]) : new StrokeSamples(x, y, pressure, time);
    }
}

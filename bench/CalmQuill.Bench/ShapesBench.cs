using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Testing;

namespace CalmQuill.Bench;

/// <summary>How often rough shapes are taken for what they were meant to be, as a table of confusions.</summary>
public static class ShapesBench
{
    private const int Each = 1_000,
        Seed = 2_026;

    public static Task Write(string path)
    {
        var confusion = RoughShapes.Confusion(Each, Seed);
        var right = Share(confusion);
        var second = SketchedShapes.Confusion(Each, Seed);
        var random = new Random(Seed);
        var gestures = RoughShapes
            .Unistrokes()
            .Select(one =>
                (
                    one.Name,
                    one.Kind,
                    Right: Enumerable
                        .Range(0, Each)
                        .Count(_ => Recogniser.Recognise(RoughShapes.Written(one.Line, random))?.Kind == one.Kind)
                )
            );
        var text = string.Create(
            CultureInfo.InvariantCulture,
            $"""
            # How rough shapes are taken

            Printed by `./quill bench --shapes`: {Each:N0} of each kind, drawn by a simulated hand (`RoughShapes`): 9 to 50 mm from the middle, turned by any angle, mirrored or not, sides of chance
            proportions, a slow wobble of 0.4 to 1.6 % of the size with a shake on top, rounded corners, begun anywhere, ended up to 4.5 % of the way short of the beginning or past it. Arrows are
            drawn in one stroke or two. **{right * 100:0.0} % are right**; the bar is 97 %, for squares and arrows 98 %.

            | meant | drawn | right | else taken for |
            | --- | --- | --- | --- |
            {RoughShapes.Table(confusion)}

            A second hand, which has nothing in common with the first (`SketchedShapes`): it moves in time, each side with the least jerk (Flash and Hogan 1985), bowed and aimed with an error; it
            stops at corners, passes them round or hooks them; a tremor of 7 to 12 Hz and the digitiser's noise lie on top, and the pen rests at the end; 7 to 60 mm. Circles have axes of up to
            1.14 : 1. Arrows are drawn in one stroke, two, or three with each barb by itself, and only the last of them rests. **{Share(second) * 100:0.0} % are right**.

            | meant | drawn | right | else taken for |
            | --- | --- | --- | --- |
            {RoughShapes.Table(second)}

            Rounds by their axes, 64 each: {string.Join("; ", Ovals())}. Closed shapes that stay open by 6 to 10 % of their way: **{Open() * 100:0.0} %** are right.

            The strokes that the authors of the unistroke literature publish as their gestures (from the package `one-dollar`, as they are), those that are shapes here:
            {string.Join(", ", Published())}.

            The gestures of the unistroke literature (Wobbrock, Wilson and Li 2007) that are shapes here, drawn after the paper's figure from memory, {Each:N0} each:

            | gesture | is here | right |
            | --- | --- | --- |
            {string.Join(
                "\n",
                gestures.Select(one =>
                    $"| {one.Name} | {one.Kind} | {(one.Right * 100.0 / Each).ToString("0.0", CultureInfo.InvariantCulture)} % |"
                )
            )}

            ## When the pen rests

            A word stays a word (`Handwriting`): of {Words:N0} words and letters, 3 to 12 mm high with all that reaches up and down, by {WrittenWords.Hands} generated hands (`WrittenWords`: single-line fonts, slanted,
            wide or narrow, printed or joined, with a rest at the end) **{Taken()}** became a shape; `HandwritingTests` hold it at none. Of rough shapes above 24 mm at least nine of ten of each kind are proposed,
            polylines and curves never. Between the size that a person sets, usual 15 mm, and that, what might be a large letter is left alone: circles, squares, stars and lines up to 18 mm, arcs and figures that are hardly
            regular up to 24 mm.

            """
        );
        Console.WriteLine(text);
        return File.WriteAllTextAsync(path, text);
    }

    private const int Words = 18_000;

    private static double Share(Dictionary<ShapeKind, Dictionary<string, int>> confusion) =>
        confusion.Sum(row => row.Value.GetValueOrDefault(row.Key.ToString())) / (double)(Each * confusion.Count);

    /// <summary>What rounds are taken for, by how much longer one axis is.</summary>
    private static IEnumerable<string> Ovals()
    {
        var random = new Random(Seed);
        foreach (var ratio in new[] { 1.0, 1.08, 1.11, 1.14, 1.2, 1.35, 1.8 })
        {
            var taken = Enumerable
                .Range(0, 64)
                .GroupBy(_ => Recogniser.Recognise(SketchedShapes.Oval(ratio, random))?.Kind.ToString() ?? "none")
                .OrderByDescending(group => group.Count())
                .Select(group => $"{group.Key} {group.Count()}");
            yield return string.Create(CultureInfo.InvariantCulture, $"{ratio:0.00} : 1 {string.Join(", ", taken)}");
        }
    }

    /// <summary>How many closed shapes are right that stay open by 6 to 10 % of their way.</summary>
    private static double Open()
    {
        var random = new Random(Seed);
        ShapeKind[] closed = [.. RoughShapes.Kinds.Where(kind => kind is >= ShapeKind.Circle and <= ShapeKind.Polygon)];
        return closed.Average(kind =>
            Enumerable
                .Range(0, Each)
                .Average(i => RoughShapes.Taken(SketchedShapes.Draw(kind, random, 0.06 + 0.04 * i / Each)) == kind.ToString() ? 1.0 : 0)
        );
    }

    /// <summary>What the published strokes are taken for, beside what they are here.</summary>
    private static IEnumerable<string> Published()
    {
        var kinds = RoughShapes.Unistrokes().ToDictionary(one => one.Name, one => one.Kind);
        foreach (var gesture in Reference.Of("unistrokes.mjs").EnumerateArray())
        {
            if (!kinds.TryGetValue(gesture.GetProperty("name").GetString()!, out var kind))
                continue;
            // A quarter of a millimetre a pixel.
            var points = gesture
                .GetProperty("points")
                .EnumerateArray()
                .Select(p => (X: p[0].GetInt32() * 25, Y: p[1].GetInt32() * 25))
                .ToList();
            var taken = Recogniser.Recognise(
                new StrokeSamples(
                    [.. points.Select(p => p.X)],
                    [.. points.Select(p => p.Y)],
                    [.. points.Select(_ => 500)],
                    [.. points.Select((_, i) => i * 12)]
                )
            );
            yield return $"{gesture.GetProperty("name").GetString()} {(taken?.Kind == kind ? "right" : $"taken for {taken?.Kind.ToString() ?? "none"}")}";
        }
    }

    /// <summary>How many words and letters have a stroke that becomes a shape when the pen rests.</summary>
    private static int Taken()
    {
        var (random, page) = (new Random(Seed), new PageDocument());
        return Enumerable
            .Range(0, Words)
            .Count(i =>
                WrittenWords
                    .Write(i % WrittenWords.Hands, 3 + 9 * random.NextDouble(), random)
                    .Strokes.Exists(stroke => Tidying.AtRest(stroke, page, Guid.Empty, 0, Handwriting.UsualLeast) is not null)
            );
    }
}

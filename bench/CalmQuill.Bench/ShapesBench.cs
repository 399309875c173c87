using System.Globalization;
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
        var right = confusion.Sum(row => row.Value.GetValueOrDefault(row.Key.ToString())) / (double)(Each * confusion.Count);
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
            polylines and curves never. Between the size that a person sets, usual 15 mm, and that, what might be a large letter is left alone: circles, squares and lines up to 18 mm, arcs and figures that are hardly
            regular up to 24 mm.

            """
        );
        Console.WriteLine(text);
        return File.WriteAllTextAsync(path, text);
    }

    private const int Words = 18_000;

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

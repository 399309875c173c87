using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Testing;

/// <summary>How well lines and words are found on a written page: each found line stands for the true one most of its strokes are of, each true one for the largest found; words likewise.</summary>
public static class EvenScore
{
    /// <summary>How many strokes are in the right line, in the right word, and there in all.</summary>
    public static (int Lines, int Words, int All) Of(List<WrittenPages.Stroke> strokes)
    {
        var (page, device) = (new PageDocument(), new Replica(1, Guid.NewGuid()));
        var truth = new Dictionary<OpId, WrittenPages.Stroke>();
        foreach (var stroke in strokes)
        {
            var written = device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, stroke.Samples), 0);
            page.Apply(written);
            truth[written.Id] = stroke;
        }

        var found = EvenLines.Find([.. page.Items]);
        var lines = found.Select(line => line.Words.SelectMany(word => word.Items).Select(item => truth[item.Id].Line).ToList()).ToList();
        var words = found.SelectMany(line => line.Words).Select(word => word.Items.Select(item => truth[item.Id].Word).ToList()).ToList();
        return (Right(lines), Right(words), strokes.Count);
    }

    /// <summary>Of each true group what lies in the found group that holds most of it and is mostly of it.</summary>
    private static int Right(List<List<int>> groups)
    {
        var claimed = new Dictionary<int, int>();
        foreach (var group in groups)
        {
            var main = group.GroupBy(one => one).MaxBy(one => one.Count())!;
            claimed[main.Key] = Math.Max(claimed.GetValueOrDefault(main.Key), main.Count());
        }

        return claimed.Values.Sum();
    }
}

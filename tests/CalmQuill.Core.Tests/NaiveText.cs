using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>
/// What operations on a typed text come to by the definitions alone: one node a letter, the whole tree walked through, every format asked for every
/// letter.
/// </summary>
internal static class NaiveText
{
    /// <summary>One operation, and whether it counts.</summary>
    public sealed record Taken(OpId Id, Stamp Stamp, TextChange Change, bool Active = true);

    /// <summary>The letters that are seen, each with its traits.</summary>
    public static List<(char Letter, string Look)> Of(IEnumerable<Taken> operations)
    {
        var standing = Closed([.. operations]);
        var letters = new Dictionary<LetterId, (char Letter, Taken By)>();
        var children = new Dictionary<(LetterId, bool Before), SortedSet<LetterId>>();
        var stamps = standing.ToDictionary(taken => taken.Id, taken => taken.Stamp);
        var byStamp = Comparer<LetterId>.Create(
            (one, other) => (stamps[one.Operation], one.Index).CompareTo((stamps[other.Operation], other.Index))
        );
        foreach (var taken in standing)
        {
            var index = 0;
            foreach (var insertion in taken.Change.Insertions)
            {
                var (at, before) = (insertion.At, insertion.Before);
                foreach (var letter in insertion.Text)
                {
                    var id = new LetterId(taken.Id, index++);
                    letters[id] = (letter, taken);
                    if (!children.TryGetValue((at, before), out var siblings))
                        children[(at, before)] = siblings = new(byStamp);
                    siblings.Add(id);
                    (at, before) = (id, false);
                }
            }
        }

        List<LetterId> all = [LetterId.Start, .. Walk(children), LetterId.End];
        var places = all.Select((id, place) => (id, place)).ToDictionary(entry => entry.id, entry => entry.place);
        var removed = standing
            .Where(taken => taken.Active)
            .SelectMany(taken => taken.Change.Removals)
            .SelectMany(span => Enumerable.Range(span.Start, span.Count).Select(i => new LetterId(span.Operation, i)))
            .ToHashSet();
        var formats = standing
            .Where(taken => taken.Active)
            .OrderBy(taken => taken.Stamp)
            .SelectMany(taken => taken.Change.Formats)
            .ToList();
        return
        [
            .. all.Where(id => letters.TryGetValue(id, out var letter) && letter.By.Active && !removed.Contains(id))
                .Select(id => (letters[id].Letter, LookOf(places[id]))),
        ];

        // An edge lies half a step before or behind its letter.
        double PlaceOf(Edge edge) => places[edge.Letter] + (edge.After || edge.Letter == LetterId.Start ? 0.5 : -0.5);

        string LookOf(int place) =>
            string.Join(
                ' ',
                formats
                    .Where(format => PlaceOf(format.From) < place && place < PlaceOf(format.To))
                    .GroupBy(format => format.Trait, format => format.Value)
                    .Where(group => group.Last().Length > 0)
                    .OrderBy(group => group.Key)
                    .Select(group => $"{group.Key}={group.Last()}")
            );
    }

    /// <summary>The same as a text shows it.</summary>
    public static List<(char Letter, string Look)> Of(TypedText text) =>
        [
            .. text.Spans()
                .SelectMany(span =>
                    span.Text.Select(letter => (letter, string.Join(' ', span.Look.Values.Select(value => $"{value.Key}={value.Value}"))))
                ),
        ];

    /// <summary>Those that lean on nothing that is missing.</summary>
    private static List<Taken> Closed(List<Taken> operations)
    {
        var standing = operations;
        while (true)
        {
            var ids = standing.Select(taken => taken.Id).ToHashSet();
            var kept = standing.Where(taken => taken.Change.LeansOn(taken.Id).All(ids.Contains)).ToList();
            if (kept.Count == standing.Count)
                return kept;
            standing = kept;
        }
    }

    /// <summary>Left children, the letter, right children.</summary>
    private static IEnumerable<LetterId> Walk(Dictionary<(LetterId, bool Before), SortedSet<LetterId>> children)
    {
        var stack = new Stack<(LetterId Letter, bool IsWalked)>();
        Push(LetterId.Start, false);
        while (stack.TryPop(out var next))
        {
            if (next.IsWalked)
            {
                yield return next.Letter;
                continue;
            }

            Push(next.Letter, false);
            stack.Push((next.Letter, true));
            Push(next.Letter, true);
        }

        void Push(LetterId letter, bool before)
        {
            foreach (var child in children.GetValueOrDefault((letter, before), []).Reverse())
                stack.Push((child, false));
        }
    }
}

using System.Runtime.CompilerServices;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Seen;

/// <summary>What is seen in all that is typed on a page.</summary>
public static class PageSeen
{
    /// <summary>Paragraphs that were read before: they are others as soon as a letter of them is.</summary>
    private static readonly ConditionalWeakTable<SetParagraph, IReadOnlyList<SeenPart>> Here = [],
        Anywhere = [];

    /// <summary>All of it, from the back to the front.</summary>
    /// <param name="page">The page.</param>
    /// <param name="offset">How far the clock of the place is ahead of UTC, for “tomorrow”.</param>
    public static IEnumerable<SeenThing> On(PageDocument page, TimeSpan offset)
    {
        foreach (var item in page.Items.Where(item => item.Shown))
        {
            if (item.Content is not WrittenContent text)
                continue;
            foreach (var room in text.RoomsWhere(paragraph => !IsSilent(paragraph, offset)))
            {
                foreach (var (paragraph, start, _) in room.Set.Paragraphs)
                {
                    foreach (var part in In(page, item, paragraph, start, offset))
                        yield return new SeenThing(item.Id, room, paragraph.Content with { Start = start }, part.Behind(start));
                }
            }
        }
    }

    /// <summary>Whether it was read already, and nothing was seen in it.</summary>
    private static bool IsSilent(SetParagraph paragraph, TimeSpan? offset) =>
        paragraph.Content.Length == 0 || (ReadBefore(offset).TryGetValue(paragraph, out var known) && known.Count == 0);

    private static ConditionalWeakTable<SetParagraph, IReadOnlyList<SeenPart>> ReadBefore(TimeSpan? offset) =>
        offset is null ? Anywhere : Here;

    /// <summary>What stands in a paragraph, read once as long as that is set the same.</summary>
    /// <param name="page">The page.</param>
    /// <param name="item">The thing in which it is typed.</param>
    /// <param name="paragraph">The paragraph.</param>
    /// <param name="start">Where in the text it begins.</param>
    /// <param name="offset">How far the clock of the place is ahead of UTC; null for what is the same wherever one is.</param>
    internal static IReadOnlyList<SeenPart> In(PageDocument page, PageItem item, SetParagraph paragraph, int start, TimeSpan? offset)
    {
        if (paragraph.Content.Length == 0)
            return [];
        var read = ReadBefore(offset);
        if (read.TryGetValue(paragraph, out var known))
            return known;
        // What is being typed is typed now; it is read again when it is an operation.
        if (page.OperationOf(item.Typed.At(start).Operation) is not { Time.UnixMilliseconds: var at })
            return SeenWords.In(paragraph.Content, null);
        var on = DateOnly.FromDateTime(DateTimeOffset.FromUnixTimeMilliseconds(at).ToOffset(offset ?? TimeSpan.Zero).DateTime);
        var seen = SeenWords.In(paragraph.Content, on, isLocal: offset is not null);
        read.AddOrUpdate(paragraph, seen);
        return seen;
    }
}

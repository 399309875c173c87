using System.Text;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Seen;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Spots;

/// <summary>
/// Boxes to be ticked in typed words, as marks: they wait for somebody as a “To do” does, and are ticked where they stand. Nothing of it is stored; it follows from what
/// is typed.
/// </summary>
public static class PageTasks
{
    /// <summary>All of a page that say something, from the back to the front.</summary>
    public static IEnumerable<Spot> Of(PageDocument page) =>
        page
            .Items.Where(item => item.Shown && item.Content is WrittenContent)
            .SelectMany(item =>
                ((WrittenContent)item.Content)
                    .RoomsWhere(IsOne)
                    .SelectMany(room =>
                        room.Set.Paragraphs.Where(one => IsOne(one.Paragraph))
                            .Select(one => Task(page, item, room, one.Paragraph, one.Start))
                    )
            )
            .OfType<Spot>();

    /// <summary>What ticks one, or opens it again; null where it is not there any more, or is so already.</summary>
    /// <param name="page">The page.</param>
    /// <param name="place">Where it is typed.</param>
    /// <param name="isDone">Whether it is done.</param>
    public static Change? Tick(PageDocument page, TaskPlace place, bool isDone)
    {
        if (
            page.Find(place.Item) is not { Stands: true, Content: WrittenContent { Typed: var text } }
            || text.PositionOf(place.Letter) is not { } at
        )
            return null;
        var paragraph = text.Paragraphs().Last(one => one.Start <= at);
        return paragraph.Look[Trait.List] != "tick" || paragraph.Look[Trait.Ticked].Length > 0 == isDone
            ? null
            : new Change.TextTyped(
                place.Item,
                new TextChange([], [], [text.FormatOfParagraphs(paragraph.Start, 0, Trait.Ticked, isDone ? "1" : "")])
            );
    }

    /// <summary>Whether a change can bring some to a page that has none.</summary>
    public static bool MayBring(Change change) =>
        change switch
        {
            Change.TextTyped typed => typed.Typed.Formats.Any(format => format.Trait == Trait.List),
            Change.WrittenAdded added => added.Passage.Formats.Any(format => format.Trait == Trait.List),
            _ => false,
        };

    private static bool IsOne(SetParagraph paragraph) => paragraph.Style.List == "tick" && paragraph.Content.Length > 0;

    private static Spot? Task(PageDocument page, PageItem item, LetterRoom room, SetParagraph paragraph, int start)
    {
        var letter = item.Typed.At(start);
        // What is being typed is no operation yet, and nobody’s task.
        if (page.OperationOf(letter.Operation) is not { } made)
            return null;
        var words = paragraph.Content.Text;
        if (string.IsNullOrWhiteSpace(words))
            return null;
        var ticked = paragraph.Style.IsTicked && item.Typed.SaidOf(start, Trait.Ticked) is { } said ? page.OperationOf(said) ?? made : null;
        var values = new Dictionary<SpotField, string> { [SpotField.Mark] = MarkKinds.ToDo, [SpotField.Note] = NoteOf(words) };
        // It is to be the same for everybody, wherever they are; so “tomorrow” is nothing to go by.
        if (PageSeen.In(page, item, paragraph, start, null).FirstOrDefault(part => part.Kind == SeenKind.Day) is { Value: { } day })
            values[SpotField.Due] = day;
        if (ticked is not null)
            values[SpotField.Done] = "1";
        var place = new TaskPlace(item.Id, letter);
        return new Spot(
            AssetId.Of(Encoding.UTF8.GetBytes($"task {place.Item} {place.Letter}")),
            SpotKind.Mark,
            AreaOf(room, start, paragraph),
            [item.Id],
            values,
            made.Time.UnixMilliseconds,
            made.Author,
            ticked?.Time.UnixMilliseconds,
            ticked?.Author ?? Guid.Empty,
            []
        )
        {
            Task = place,
        };
    }

    private static Box AreaOf(LetterRoom room, int start, SetParagraph paragraph) =>
        Box.Around([.. room.Behind(start, start + paragraph.Content.Length).SelectMany(corners => corners), .. room.TickOf(start)]);

    private static string NoteOf(string words)
    {
        var line = string.Concat(words.Select(sign => char.IsControl(sign) || sign == '\u2028' ? ' ' : sign)).Trim();
        return Signs.Whole(line.Length <= SpotRules.MostNote ? line : line[..SpotRules.MostNote]);
    }
}

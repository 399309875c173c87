using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Browser;

/// <summary>
/// Somebody at a text: what they are typing, which is no operation yet, and what is selected. Both stay right whatever others do to the text meanwhile.
/// </summary>
/// <param name="page">The page.</param>
/// <param name="item">The text on it.</param>
/// <param name="name">The room in it in which is typed, such as a cell: a <see cref="LetterRoom"/>.</param>
/// <param name="made">What made it, where that is this very hand: the first that is typed belongs to it.</param>
internal sealed class TypingHand(PageDocument page, OpId item, string name, OpId? made)
{
    /// <summary>What is being typed has this number until it is an operation, which comes after all there are.</summary>
    private const ulong Waiting = ulong.MaxValue - 1;

    private readonly Dictionary<Trait, string> next = [];
    private OpId? joins = made;
    private Burst? burst;
    private Typist? typist;
    private LetterId from = LetterId.End,
        to = LetterId.End;

    public OpId Item => item;

    /// <summary>What is typed into, as <see cref="NameOf"/> has it.</summary>
    public string Name => NameOf(item, name);

    /// <summary>The room in which is typed.</summary>
    /// <exception cref="SentenceException">It is not there any more.</exception>
    public LetterRoom Room => Content.RoomBy(name) ?? throw new SentenceException($"This text is not there any more.");

    /// <summary>Somebody at what <see cref="NameOf"/> names.</summary>
    public static TypingHand At(PageDocument page, string what)
    {
        var (item, room) = Read(what);
        // Of a table that is named alone it is the first cell.
        var name = page.Find(item) is { Stands: true, Content: WrittenContent content } ? content.RoomBy(room)?.Name : null;
        return new TypingHand(page, item, name ?? room, null);
    }

    /// <summary>The name of a room of a text: the text's id, and behind a blank that of the room, where it has several.</summary>
    public static string NameOf(OpId item, string room) => room.Length == 0 ? item.ToString() : $"{item} {room}";

    /// <summary>Reads what <see cref="NameOf"/> writes.</summary>
    public static (OpId Item, string Room) Read(string what)
    {
        var end = what.IndexOf(' ', StringComparison.Ordinal);
        return end < 0 ? (OpId.Parse(what), "") : (OpId.Parse(what[..end]), what[(end + 1)..]);
    }

    /// <summary>The paragraphs as they were told last.</summary>
    public IReadOnlyList<(SetParagraph Paragraph, int Start, int Y)> Told { get; set; } = [];

    public WrittenContent Content => (WrittenContent)page.Find(item)!.Content;

    /// <summary>Whether the text is still there to be typed into.</summary>
    public bool IsThere => page.Find(item) is { Stands: true, Content: WrittenContent content } && content.RoomBy(name) is not null;

    /// <summary>What was typed and is no operation yet; null for nothing.</summary>
    public Change.TextTyped? Pending => burst is { IsEmpty: false } typed ? new Change.TextTyped(item, typed.Finished) : null;

    public TypedText Text => Content.Typed;

    public (int From, int To) Selection =>
        (Text.PositionOf(from) ?? Text.Length, Text.PositionOf(to) ?? Text.Length) is var (first, last) && first <= last
            ? Within(first, last)
            : (0, 0);

    /// <summary>The text and where the selection is, by names that others know; nothing while it is at letters that are no operation yet.</summary>
    public string[] Caret() =>
        from.Operation.Counter == Waiting || to.Operation.Counter == Waiting ? [] : [Name, from.ToString(), to.ToString()];

    public void Select(int first, int last)
    {
        (first, last) = Within(first, last);
        (from, to) = (Text.At(first), Text.At(last));
    }

    /// <summary>What keys do to letters that are selected; what it does is shown at once.</summary>
    public void Do(int first, int last, Func<Typist, int, int, int?> act)
    {
        Begin();
        HaveCell();
        (first, last) = Within(first, last);
        var caret = act(typist!, first, last);
        page.Typing(item);
        // Where the caret does not go elsewhere the letters that were selected stay so.
        Select(caret ?? first, caret ?? last);
    }

    /// <summary>What stands of each trait.</summary>
    public Func<Trait, string?> Standing(int first, int last)
    {
        Begin();
        (first, last) = Within(first, last);
        return typist!.Standing(first, last);
    }

    /// <summary>Makes what was typed since the last call one operation, and one step with what it belongs to; framed, none where nothing was typed.</summary>
    public byte[] End(int handle, double now)
    {
        if (burst is null)
            return [];
        var (first, last) = Selection;
        var finished = burst.Finished;
        burst.End();
        (burst, typist) = (null, null);
        page.Typing(item);
        if (finished.IsEmpty)
            return [];
        var made = new List<byte[]> { Session.Perform(handle, new Change.TextTyped(item, finished), now) };
        if (joins is { } before)
            made.Add(Session.Perform(handle, new Change.StepsJoined([before, Session.Replica.LastId]), now));
        joins = null;
        Select(first, last);
        return Session.Framed(made);
    }

    private void Begin()
    {
        if (burst is not null)
            return;
        burst = new Burst(Text, new OpId(Session.Replica.Id, Waiting), new Hlc(ulong.MaxValue));
        typist = new Typist(Text, burst, next);
    }

    /// <summary>A cell that nothing was written in yet gets a place for letters.</summary>
    private void HaveCell()
    {
        if (Cell is not { Paragraphs.Count: 0 } cell)
            return;
        var edit = new TableEdit(Text, Session.Replica.Id);
        edit.Begin(cell);
        burst!.Take(edit.Change);
        page.Typing(item);
    }

    private TableCell? Cell => Content is TableContent table ? table.Layout.Text.Find(name) : null;

    /// <summary>Letters that are selected, as far as they are in one cell: what is typed in one changes no other.</summary>
    private (int From, int To) Within(int first, int last)
    {
        if (Cell is not { } cell)
            return (first, last);
        if (cell.Paragraphs.Count == 0)
            return (0, 0);
        // Paragraphs one behind the other in the text; others of the cell may lie elsewhere in it.
        var parts = new List<(int From, int To)>();
        foreach (var paragraph in cell.Paragraphs.OrderBy(paragraph => paragraph.Start))
        {
            var end = paragraph.Start + paragraph.Length;
            if (parts.Count > 0 && parts[^1].To + 1 == paragraph.Start)
                parts[^1] = parts[^1] with { To = end };
            else
                parts.Add((paragraph.Start, end));
        }

        var (from, to) = parts.Find(part => part.From <= first && first <= part.To) is var found && found != default ? found : parts[0];
        return (Math.Clamp(first, from, to), Math.Clamp(last, from, to));
    }
}

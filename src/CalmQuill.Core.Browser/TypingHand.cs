using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Browser;

/// <summary>
/// Somebody at a text: what they are typing, which is no operation yet, and what is selected. Both stay right whatever others do to the text meanwhile.
/// </summary>
/// <param name="page">The page.</param>
/// <param name="item">The text on it.</param>
/// <param name="made">What made it, where that is this very hand: the first that is typed belongs to it.</param>
internal sealed class TypingHand(PageDocument page, OpId item, OpId? made)
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

    /// <summary>The paragraphs that were handed out.</summary>
    public HashSet<uint> Handed { get; } = [];

    public WrittenContent Content => (WrittenContent)page.Find(item)!.Content;

    /// <summary>Whether the text is still there to be typed into.</summary>
    public bool IsThere => page.Find(item) is { Stands: true, Content: WrittenContent };

    /// <summary>What was typed and is no operation yet; null for nothing.</summary>
    public Change.TextTyped? Pending => burst is { IsEmpty: false } typed ? new Change.TextTyped(item, typed.Finished) : null;

    public TypedText Text => Content.Typed;

    public (int From, int To) Selection =>
        (Text.PositionOf(from) ?? Text.Length, Text.PositionOf(to) ?? Text.Length) is var (first, last) && first <= last
            ? (first, last)
            : (0, 0);

    /// <summary>The text and where the selection is, by names that others know; nothing while it is at letters that are no operation yet.</summary>
    public string[] Caret() =>
        from.Operation.Counter == Waiting || to.Operation.Counter == Waiting ? [] : [item.ToString(), from.ToString(), to.ToString()];

    public void Select(int first, int last) => (from, to) = (Text.At(first), Text.At(last));

    /// <summary>What keys do; what it does is shown at once.</summary>
    public void Do(Func<Typist, int?> act)
    {
        Begin();
        if (act(typist!) is { } caret)
            Select(caret, caret);
        page.Typing(item);
    }

    /// <summary>What stands of each trait.</summary>
    public Func<Trait, string?> Standing(int first, int last)
    {
        Begin();
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
}

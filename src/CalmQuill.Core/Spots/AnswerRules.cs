using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Spots;

/// <summary>Whether an answer may enter a page. Whoever may read a page may answer to its marks, and take back what they answered; see <see cref="Act.Answer"/>.</summary>
public static class AnswerRules
{
    public const int MostText = 2_000,
        MostMentions = 20,
        MostStrokes = 500,
        MostInk = 64 * 1024;

    /// <summary>Whether this is all that is done: answering, or taking an answer back.</summary>
    public static bool IsAnswering(Change change) => change is Change.AnswerAdded or Change.AnswerWithdrawn;

    public static Refusal? Check(Change.AnswerAdded added)
    {
        if (added.Spot == Guid.Empty || added.Mentions.Contains(Guid.Empty))
            return new Refusal("bad-id", $"A sign on a page has no proper id.");
        if (added.Text.Length > MostText)
            return new Refusal("bad-value", $"An answer has at most {MostText} characters.");
        if (added.Mentions.Count > MostMentions || added.Mentions.Distinct().Count() < added.Mentions.Count)
            return new Refusal("bad-value", $"An answer speaks to at most {MostMentions} people.");
        if (string.IsNullOrWhiteSpace(added.Text) && added.Ink.Length == 0)
            return new Refusal("empty", $"An answer says something, typed or in ink.");
        return added.Ink.Length == 0 ? null : CheckInk(added.Ink);
    }

    private static Refusal? CheckInk(ReadOnlyMemory<byte> ink)
    {
        if (ink.Length > MostInk)
            return new Refusal("too-many", $"There is too much ink in this answer.");
        List<Operation> strokes;
        try
        {
            strokes = OperationCodec.Decode(ink.Span);
        }
        catch (OperationFormatException)
        {
            return new Refusal("bad-value", $"The ink of this answer cannot be read.");
        }

        if (strokes.Count is 0 or > MostStrokes)
            return new Refusal("too-many", $"There is too much ink in this answer.");
        foreach (var stroke in strokes)
        {
            if (stroke.Change is not Change.StrokeAdded added)
                return new Refusal("bad-value", $"The ink of this answer cannot be read.");
            if (added.Check() is { } refusal)
                return refusal;
        }

        return null;
    }
}

namespace CalmQuill.Core.Seen;

/// <summary>Words that say something that can be done with.</summary>
/// <param name="From">The first letter.</param>
/// <param name="To">Behind the last one.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Value">
/// The same in one form for all ways of writing it: a link's target, <c>name@example.org</c>, <c>+49301234567</c>, <c>2026-10-09</c>, <c>14:30</c>, and of a sum
/// what it comes to.
/// </param>
public readonly record struct SeenPart(int From, int To, SeenKind Kind, string Value)
{
    /// <summary>The same words further on in a text.</summary>
    public SeenPart Behind(int start) => this with { From = From + start, To = To + start };

    /// <summary>Whether it shares a letter with others.</summary>
    public bool Meets(IEnumerable<SeenPart> others)
    {
        var (from, to) = (From, To);
        return others.Any(other => other.From < to && from < other.To);
    }
}

using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>Letters of one operation that follow each other in the order in which they were typed; others may stand between them.</summary>
/// <param name="Operation">What typed them.</param>
/// <param name="Start">The first of them.</param>
/// <param name="Count">How many.</param>
public readonly record struct LetterSpan(OpId Operation, int Start, int Count)
{
    /// <summary>Whether its numbers are some.</summary>
    public bool IsProper => Start >= 0 && Count > 0 && Count <= int.MaxValue - Start;

    public LetterId First => new(Operation, Start);

    public LetterId Last => new(Operation, Start + Count - 1);
}

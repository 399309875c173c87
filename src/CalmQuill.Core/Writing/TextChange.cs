using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>What one operation does to a typed text: a burst of typing, a paste, a change of looks. All of it together, or none.</summary>
/// <param name="Insertions">What is typed; their letters are counted on from one to the next.</param>
/// <param name="Removals">What goes.</param>
/// <param name="Formats">What is made to look otherwise.</param>
public sealed record TextChange(IReadOnlyList<Insertion> Insertions, IReadOnlyList<LetterSpan> Removals, IReadOnlyList<Format> Formats)
{
    /// <summary>How many letters it types.</summary>
    public int Letters => Insertions.Sum(insertion => insertion.Text.Length);

    /// <summary>All letters it names but those of its own operation, by the operations that typed them; what it leans on.</summary>
    public IEnumerable<LetterId> Named(OpId own)
    {
        foreach (var insertion in Insertions)
            yield return insertion.At;
        foreach (var removal in Removals)
        {
            yield return new LetterId(removal.Operation, removal.Start);
            yield return new LetterId(removal.Operation, removal.Start + Math.Max(1, removal.Count) - 1);
        }

        foreach (var format in Formats)
        {
            yield return format.From.Letter;
            yield return format.To.Letter;
        }
    }
}

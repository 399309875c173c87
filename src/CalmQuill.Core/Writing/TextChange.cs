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

    /// <summary>The operations whose letters it names, but its own.</summary>
    /// <param name="own">Its own.</param>
    public IEnumerable<OpId> LeansOn(OpId own)
    {
        foreach (var insertion in Insertions)
        {
            if (IsOther(insertion.At.Operation))
                yield return insertion.At.Operation;
        }

        foreach (var removal in Removals)
        {
            if (IsOther(removal.Operation))
                yield return removal.Operation;
        }

        foreach (var format in Formats)
        {
            if (IsOther(format.From.Letter.Operation))
                yield return format.From.Letter.Operation;
            if (IsOther(format.To.Letter.Operation))
                yield return format.To.Letter.Operation;
        }

        bool IsOther(OpId id) => id != own && id != default;
    }
}

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

    public bool IsEmpty => Insertions.Count + Removals.Count + Formats.Count == 0;

    /// <summary>The same with other names for the operations whose letters it names; <see cref="LetterId.Own"/> is among them.</summary>
    public TextChange Renamed(Func<OpId, OpId> nameOf)
    {
        LetterId Of(LetterId letter) => letter.IsBound ? letter : letter with { Operation = nameOf(letter.Operation) };
        Edge At(Edge edge) => edge with { Letter = Of(edge.Letter) };
        return new TextChange(
            [.. Insertions.Select(insertion => insertion with { At = Of(insertion.At) })],
            [.. Removals.Select(removal => removal with { Operation = nameOf(removal.Operation) })],
            [.. Formats.Select(format => format with { From = At(format.From), To = At(format.To) })]
        );
    }

    /// <summary>The same with one name in place of another; itself where it names no such.</summary>
    public TextChange Renamed(OpId name, OpId other) => Names(name) ? Renamed(id => id == name ? other : id) : this;

    private bool Names(OpId name) =>
        Insertions.Any(insertion => insertion.At.Operation == name)
        || Removals.Any(removal => removal.Operation == name)
        || Formats.Any(format => format.From.Letter.Operation == name || format.To.Letter.Operation == name);

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

        bool IsOther(OpId id) => id != own && id != LetterId.Own && id != default;
    }
}

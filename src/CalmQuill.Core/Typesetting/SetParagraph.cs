using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Typesetting;

/// <summary>A paragraph as it is set, wherever in its text it stands.</summary>
/// <param name="Content">Its letters.</param>
/// <param name="Style">How it is set.</param>
/// <param name="Lines">Its lines; there is always one.</param>
/// <param name="Sign">What stands before it in a list: a dot or number; null for none.</param>
public sealed record SetParagraph(Paragraph Content, ParagraphStyle Style, IReadOnlyList<SetLine> Lines, SetPiece? Sign)
{
    /// <summary>How far its last line stands below the line before it, in bits.</summary>
    public int Height => Lines[^1].Y;

    /// <summary>Whether anything is filled behind, under or through its letters, or a box to be ticked stands before them.</summary>
    public bool HasFills { get; } =
        Style.List == "tick"
        || Lines.Any(line => line.Pieces.Any(piece => (piece.Style.Marker & 0xFF) > 0 || piece.Style.Underline || piece.Style.Struck));

    public bool Equals(SetParagraph? other) => ReferenceEquals(this, other);

    public override int GetHashCode() => System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(this);
}

using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Items;

/// <summary>All that decides the outlines of a content where it was made: while it stays equal, so do they.</summary>
/// <param name="Form">What it is drawn from, by identity.</param>
/// <param name="Visible">What is seen of it, by identity.</param>
/// <param name="Pen">The pen, without its colour.</param>
/// <param name="IsFilled">Whether it has a region that is filled.</param>
public readonly record struct OutlineKey(object Form, object Visible, Pen Pen, bool IsFilled)
{
    public bool Equals(OutlineKey other) =>
        ReferenceEquals(Form, other.Form) && ReferenceEquals(Visible, other.Visible) && Pen == other.Pen && IsFilled == other.IsFilled;

    public override int GetHashCode() => HashCode.Combine(Pen, IsFilled);
}

namespace CalmQuill.Core.Writing;

/// <summary>
/// Letters that were typed one behind the other at one place. The place is a letter and a side of it, as in the tree of Fugue (Weidner and Kleppmann
/// 2023): the first letter hangs on that side of
/// <paramref name="At"/>, each other one on the right side of the one before.
/// </summary>
/// <param name="At">The letter; <see cref="LetterId.Start"/> for what is typed before all others.</param>
/// <param name="Before">Whether it hangs on the left side of the letter.</param>
/// <param name="Text">The letters.</param>
public sealed record Insertion(LetterId At, bool Before, string Text)
{
    /// <summary>Whether there are letters, and a side on which they may hang: nothing stands before the start, nor at the end.</summary>
    public bool IsProper => Text.Length > 0 && At != LetterId.End && !(At == LetterId.Start && Before);
}

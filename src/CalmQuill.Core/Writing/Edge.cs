namespace CalmQuill.Core.Writing;

/// <summary>
/// Where a format begins or ends: right before or right behind a letter, and it stays there whatever is typed. So an end before the letter that follows
/// takes in what is typed at it, and an end behind
/// the last letter does not (Litt, Lim, Kleppmann and van Hardenberg 2022).
/// </summary>
/// <param name="Letter">The letter; it may have been removed since.</param>
/// <param name="After">Whether it is behind it.</param>
public readonly record struct Edge(LetterId Letter, bool After);

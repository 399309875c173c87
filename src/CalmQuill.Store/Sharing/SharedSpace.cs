using CalmQuill.Core.Access;
using CalmQuill.Core.Library;

namespace CalmQuill.Store.Sharing;

/// <summary>What a guest sees of one library.</summary>
/// <param name="Space">The library.</param>
/// <param name="Group">The group's name; empty for somebody's own library, which has none that others know.</param>
/// <param name="Touch">What whoever writes there may do to what others wrote.</param>
/// <param name="Things">What was shared.</param>
/// <param name="Nodes">That, with all folders and notebooks inside.</param>
/// <param name="Notebooks">Its notebooks in sum.</param>
/// <param name="People">Who wrote in them, and who shared.</param>
public sealed record SharedSpace(
    Guid Space,
    string Group,
    Touch Touch,
    IReadOnlyList<SharedThing> Things,
    IReadOnlyList<LibraryNode> Nodes,
    IReadOnlyList<SharedNotebook> Notebooks,
    IReadOnlyList<SharedPerson> People
);

/// <summary>One thing that was shared, and by whom.</summary>
/// <param name="With">How it came: <see cref="ShareWith.Group"/> by a group one is in.</param>
/// <param name="Through">That group's name; else empty.</param>
public sealed record SharedThing(Guid Share, Guid Node, string By, ShareWith With, string Through, bool Writes, DateTimeOffset? Until);

/// <summary>A notebook that a guest sees.</summary>
/// <param name="WrittenAt">When it was written in last, UTC milliseconds since 1970; null for never.</param>
public sealed record SharedNotebook(Guid Id, Role Role, int PageCount, long? WrittenAt);

/// <summary>Somebody whose ink a guest sees.</summary>
public sealed record SharedPerson(Guid Id, string Name, string Colour);

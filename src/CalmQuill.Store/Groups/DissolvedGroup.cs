namespace CalmQuill.Store.Groups;

/// <summary>A dissolved group, which its owners can have back until a day.</summary>
public sealed record DissolvedGroup(Guid Id, string Name, string Colour, DateTimeOffset Until);

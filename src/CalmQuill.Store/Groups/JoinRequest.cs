namespace CalmQuill.Store.Groups;

/// <summary>Somebody who asks to be let in.</summary>
public sealed record JoinRequest(Guid Space, string Group, Guid Person, string Name, string Colour, DateTimeOffset AskedAt);

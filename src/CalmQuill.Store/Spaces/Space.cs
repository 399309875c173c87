using CalmQuill.Core.Access;

namespace CalmQuill.Store.Spaces;

/// <summary>A personal or a group's library, as one member sees it.</summary>
public sealed record Space(Guid Id, string Name, bool Personal, Role Role, string Colour, Touch Touch, bool IsPastClosed);

/// <summary>Somebody in a space.</summary>
public sealed record Member(Guid Id, string Name, string Colour, Role Role);

namespace CalmQuill.Core.Spots;

/// <summary>The kinds of marks that are always there. Those of people's own are nodes of their library, named by their ids.</summary>
public static class MarkKinds
{
    public const string ToDo = "todo",
        Ask = "ask",
        LookUp = "lookup",
        KeyPoint = "key";

    public static readonly string[] All = [ToDo, Ask, LookUp, KeyPoint];

    /// <summary>Whether a mark of a kind is open until it is ticked off. Own kinds are; a key point stays a key point.</summary>
    public static bool CanBeDone(string kind) => kind is not KeyPoint;

    public static bool IsKind(string kind) => All.Contains(kind) || Guid.TryParse(kind, out _);
}

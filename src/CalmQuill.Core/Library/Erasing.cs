namespace CalmQuill.Core.Library;

/// <summary>What was erased from the bin.</summary>
public enum Erasing
{
    None,

    /// <summary>The thing and all that lies in it, whoever put it there and when: what earlier versions wrote.</summary>
    WithAllInIt,

    /// <summary>The thing itself. What was in it when it was erased says so of itself; what came into it from a device that did not know stays, and stands where the thing stood.</summary>
    Alone,
}

/// <summary>How erasing is written.</summary>
public static class Erasings
{
    public const string Alone = "alone";
}

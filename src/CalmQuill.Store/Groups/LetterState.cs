namespace CalmQuill.Store.Groups;

/// <summary>How a letter goes.</summary>
public enum LetterState : byte
{
    /// <summary>It is with the mail server, or just about to be.</summary>
    OnItsWay,

    /// <summary>It was tried, and waits for the mail server.</summary>
    Waiting,

    /// <summary>It was tried for days, and is given up.</summary>
    Failed,
}

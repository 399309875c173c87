using CalmQuill.Core.Operations;

namespace CalmQuill.Server.Access;

/// <summary>Why somebody is not let in: an HTTP status, a code for programs, a sentence for a person.</summary>
public sealed record Denial(int Status, string Code, Sentence Sentence)
{
    /// <summary>Nothing is revealed about what a stranger asks for.</summary>
    public static readonly Denial NotHere = new(StatusCodes.Status404NotFound, "not-here", $"There is nothing here that you may see.");

    public static readonly Denial Locked = new(
        StatusCodes.Status423Locked,
        "locked",
        $"This notebook is locked. Open it with its passphrase."
    );

    public static readonly Denial MayNotWrite = new(
        StatusCodes.Status403Forbidden,
        Refusal.NotAllowedCode,
        $"You may read here, but not write."
    );

    public static readonly Denial NoPast = new(
        StatusCodes.Status403Forbidden,
        Refusal.NotAllowedCode,
        $"In this group readers see pages as they are, and not as they were."
    );

    public static readonly Denial MayNotShare = new(
        StatusCodes.Status403Forbidden,
        Refusal.NotAllowedCode,
        $"A notebook is shared by who made it, or by an owner; a folder by an owner."
    );

    public static readonly Denial NoGroup = new(
        StatusCodes.Status400BadRequest,
        "no-group",
        $"This is somebody’s own library. Only a group has members."
    );

    public static readonly Denial MayNotManage = new(
        StatusCodes.Status403Forbidden,
        Refusal.NotAllowedCode,
        $"Only an owner of the space may do this."
    );
}

/// <summary>What somebody asked for, or why they are not let in.</summary>
public readonly record struct Entry<T>(T? Value, Denial? Denied)
    where T : class
{
    public static implicit operator Entry<T>(T value) => new(value, null);

    public static implicit operator Entry<T>(Denial denied) => new(null, denied);
}

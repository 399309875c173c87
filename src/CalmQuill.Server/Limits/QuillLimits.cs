namespace CalmQuill.Server.Limits;

/// <summary>How much a person, an address and a space may ask of a server. Generous for a group that writes; each can be set by who looks after the server.</summary>
public sealed record QuillLimits
{
    /// <summary>Requests a minute of one person, over all servers.</summary>
    public int RequestsAMinute { get; init; } = 6_000;

    /// <summary>Requests a minute of one address that is not signed in.</summary>
    public int RequestsAMinuteSignedOut { get; init; } = 600;

    /// <summary>Requests of one person that are worked on at the same time; the next ones wait for their turn.</summary>
    public int RequestsAtOnce { get; init; } = 12;

    /// <summary>Requests of one person that may wait.</summary>
    public int RequestsWaiting { get; init; } = 300;

    /// <summary>Requests that take much work, such as printing, at the same time on one server.</summary>
    public int ExpensiveAtOnce { get; init; } = 2;

    /// <summary>Live connections of one person to one server.</summary>
    public int ConnectionsOfAPerson { get; init; } = 40;

    /// <summary>Sign-ins of one person; the one not used for longest ends when there are more.</summary>
    public int DevicesOfAPerson { get; init; } = 40;

    /// <summary>Bytes of operations in one space.</summary>
    public long BytesOfASpace { get; init; } = 20_000_000_000;

    /// <summary>Operations in one space.</summary>
    public long OperationsOfASpace { get; init; } = 50_000_000;

    /// <summary>Bytes of one picture or file.</summary>
    public long BytesOfAnAsset { get; init; } = 64 * 1024 * 1024;

    /// <summary>Bytes of pictures, files and frozen pages in one space.</summary>
    public long AssetBytesOfASpace { get; init; } = 10_000_000_000;

    /// <summary>Tries to sign in a minute, for one account from devices that did not sign in before; ten times as many from one address.</summary>
    public int SignInsAMinute { get; init; } = 10;

    /// <param name="number">Gives a variable's number; null when it is not set.</param>
    public static QuillLimits FromEnvironment(Func<string, long?> number)
    {
        var usual = new QuillLimits();
        int Small(string name, int otherwise) => (int)Math.Min(number("QUILL_LIMIT_" + name) ?? otherwise, int.MaxValue);
        return new QuillLimits
        {
            RequestsAMinute = Small("REQUESTS", usual.RequestsAMinute),
            RequestsAMinuteSignedOut = Small("REQUESTS_SIGNED_OUT", usual.RequestsAMinuteSignedOut),
            RequestsAtOnce = Small("AT_ONCE", usual.RequestsAtOnce),
            ConnectionsOfAPerson = Small("CONNECTIONS", usual.ConnectionsOfAPerson),
            DevicesOfAPerson = Small("DEVICES", usual.DevicesOfAPerson),
            BytesOfASpace = number("QUILL_LIMIT_SPACE_BYTES") ?? usual.BytesOfASpace,
            OperationsOfASpace = number("QUILL_LIMIT_SPACE_OPERATIONS") ?? usual.OperationsOfASpace,
            BytesOfAnAsset = number("QUILL_LIMIT_ASSET") ?? usual.BytesOfAnAsset,
            AssetBytesOfASpace = number("QUILL_LIMIT_SPACE_ASSETS") ?? usual.AssetBytesOfASpace,
            SignInsAMinute = Small("SIGN_INS", usual.SignInsAMinute),
        };
    }
}

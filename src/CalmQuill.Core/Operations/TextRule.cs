using System.Text;

namespace CalmQuill.Core.Operations;

/// <summary>What may be written into one register: how long it may be, and what must hold of it. Rules and codec both go by it.</summary>
/// <param name="MostBytes">Its most bytes as UTF-8.</param>
/// <param name="Check">Why a text that is not empty is none; null when it is fine.</param>
public sealed record TextRule(int MostBytes, Func<string, Sentence?> Check)
{
    /// <summary>Of what is not known here, and may be of a later version: nothing that is known is longer.</summary>
    public const int MostBytesUnknown = 80_000;

    /// <summary>Whatever the rules of an earlier version let in is read for ever, so nothing shorter than this is refused by the reader.</summary>
    public const int LeastBytesRead = 8_000;

    /// <summary>How long a text may be to be read.</summary>
    public int MostBytesRead => Math.Max(MostBytes, LeastBytesRead);

    /// <summary>Why a text may not be written; null when it may. The empty text takes back what was written.</summary>
    public Sentence? Problem(string text) =>
        text.Length == 0 ? null
        : Check(text) is { } problem ? problem
        : Encoding.UTF8.GetByteCount(text) > MostBytes ? Sentence.Of($"A text here takes at most {MostBytes:N0} bytes.")
        : null;

    /// <summary>A switch: “1” or nothing.</summary>
    public static TextRule Switch { get; } = new(1, text => text == "1" ? null : Sentence.Of($"A switch is neither on nor off."));

    /// <summary>Something's id.</summary>
    public static TextRule Id { get; } =
        new(68, text => Guid.TryParse(text, out _) ? null : Sentence.Of($"What is named here has no proper id."));

    /// <summary>What something is called.</summary>
    public static TextRule Name { get; } = new(Library.Names.MostBytes, Library.Names.Problem);
}

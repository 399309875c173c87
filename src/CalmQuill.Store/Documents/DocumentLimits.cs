using CalmQuill.Core.Operations;

namespace CalmQuill.Store.Documents;

/// <summary>How much one document may hold, so that opening it stays possible for every device.</summary>
/// <param name="Operations">The most operations.</param>
/// <param name="Bytes">The most bytes as stored.</param>
public sealed record DocumentLimits(long Operations, long Bytes)
{
    public const string FullCode = "document-full";

    /// <summary>A page of ordinary writing has some hundreds of operations; what is read in one batch ends at a million (<see cref="OperationCodec.MostOperations"/>).</summary>
    public static readonly DocumentLimits Usual = new(400_000, 256L * 1024 * 1024);

    /// <summary>From this share on the person is told.</summary>
    public const double Near = 0.9;

    internal double Fullness(long operations, long bytes) => Math.Max((double)operations / Operations, (double)bytes / Bytes);

    internal static Refusal Full(DocumentKind kind) =>
        kind switch
        {
            DocumentKind.Page => new Refusal(FullCode, $"This page is full. Go on on a new page."),
            DocumentKind.Aside => new Refusal(FullCode, $"This aside is full. It takes no more."),
            DocumentKind.Notebook => new Refusal(FullCode, $"This notebook is full. Go on in a new notebook."),
            _ => new Refusal(FullCode, $"This library is full."),
        };
}

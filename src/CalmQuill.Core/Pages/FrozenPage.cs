using System.Text;
using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Pages;

/// <summary>A page as it was when it was made into a paper.</summary>
/// <param name="Page">What was written on it; marks, links and headings belong to the page, not to the paper.</param>
/// <param name="Paper">The paper it was written on.</param>
public sealed record FrozenPage(PageDocument Page, Paper Paper)
{
    public const string MediaType = "application/vnd.calm-quill.frozen-page";

    /// <summary>So many bytes at most are looked through for the end of the paper's text.</summary>
    private const int MostPaper = 4_096;

    /// <summary>As a file: the paper's text, a line break, and the operations as one batch.</summary>
    public static byte[] Write(PageDocument page, string paper)
    {
        // What people said to marks there is nobody's who writes on the paper.
        Operation[] ink =
        [
            .. page.Operations()
                .Where(operation =>
                    operation.Change is not (Change.SpotAdded or Change.SpotSet) && !AnswerRules.IsAnswering(operation.Change)
                ),
        ];
        return [.. Encoding.UTF8.GetBytes(paper + "\n"), .. OperationCodec.Encode(ink)];
    }

    /// <summary>Null where the bytes are no frozen page.</summary>
    public static FrozenPage? Read(ReadOnlySpan<byte> bytes)
    {
        var end = bytes[..Math.Min(bytes.Length, MostPaper)].IndexOf((byte)'\n');
        if (end < 0 || !Paper.TryParse(Encoding.UTF8.GetString(bytes[..end]), out var paper))
            return null;
        try
        {
            var page = new PageDocument();
            foreach (var operation in OperationCodec.Decode(bytes[(end + 1)..]))
            {
                // It comes from a device as any operation does.
                if (
                    OperationRules.Check(operation, DocumentKind.Page, Role.Writer, operation.Author, operation.Time.UnixMilliseconds)
                    is not null
                )
                    return null;
                page.Apply(operation);
            }

            return new FrozenPage(page, paper);
        }
        catch (OperationFormatException)
        {
            return null;
        }
    }
}

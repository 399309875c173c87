using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Documents;

/// <summary>A page as it was when it was made into a paper: its paper's text, a line break, and its operations as one batch.</summary>
public static class FrozenPage
{
    public const string MediaType = "application/vnd.calm-quill.frozen-page";

    /// <summary>Ink with what was done to it; marks, links and headings belong to the page, not to the paper.</summary>
    public static byte[] Write(PageDocument page, string paper)
    {
        Operation[] ink = [.. page.Operations().Where(operation => operation.Change is not (Change.SpotAdded or Change.SpotSet))];
        return [.. System.Text.Encoding.UTF8.GetBytes(paper + "\n"), .. OperationCodec.Encode(ink)];
    }

    /// <summary>Null where the bytes are no frozen page.</summary>
    public static Background.Frozen? Read(ReadOnlySpan<byte> bytes)
    {
        var end = bytes.IndexOf((byte)'\n');
        if (end < 0 || !Paper.TryParse(System.Text.Encoding.UTF8.GetString(bytes[..end]), out var paper))
            return null;
        try
        {
            var page = new PageDocument();
            foreach (var operation in OperationCodec.Decode(bytes[(end + 1)..]))
                page.Apply(operation);
            return new Background.Frozen(page, paper);
        }
        catch (OperationFormatException)
        {
            return null;
        }
    }
}

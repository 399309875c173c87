using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: what people say to marks.</summary>
public static partial class AnswerBridge
{
    /// <summary>Says something to a mark.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="spot">The mark.</param>
    /// <param name="text">What was typed; may be empty where there is ink.</param>
    /// <param name="mentions">The people who are spoken to.</param>
    /// <param name="ink">A batch of strokes, as a piece that was cut; empty for none.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Say(int page, string spot, string text, string[] mentions, byte[] ink, double now) =>
        Session.Perform(page, new Change.AnswerAdded(Guid.Parse(spot), text, [.. mentions.Select(Guid.Parse)], ink), now);

    [JSExport]
    public static byte[] Withdraw(int page, string answer, double now) =>
        Session.Perform(page, new Change.AnswerWithdrawn(OpId.Parse(answer)), now);

    /// <summary>The ink of an answer as a render packet; empty where there is none.</summary>
    [JSExport]
    public static byte[] Ink(int page, string spot, string answer)
    {
        var said = Session
            .Document<PageDocument>(page)
            .Spots()
            .Where(one => one.Id == Guid.Parse(spot))
            .SelectMany(one => one.Answers)
            .FirstOrDefault(one => one.Id == OpId.Parse(answer));
        var written = new PageDocument();
        foreach (var operation in said is { Ink.Length: > 0 } ? OperationCodec.Decode(said.Ink.Span) : [])
            written.Apply(operation);
        return RenderPacket.Of([.. written.Items.Where(item => item.Shown)], item => item.Visible());
    }
}

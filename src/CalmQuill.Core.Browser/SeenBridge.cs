using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Seen;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: what is seen in typed words that something can be done with. Lengths are 0.01 mm.</summary>
public static partial class SeenBridge
{
    /// <summary>
    /// All of it on a page, as JSON: what it is typed in, as <see cref="TextBridge.At"/> names it, its letters, kind, value, words and line, and the corners of what lies behind
    /// them line by line, x and y in turn.
    /// </summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="minutes">How far the clock of the place is ahead of UTC.</param>
    [JSExport]
    public static string Seen(int page, int minutes) =>
        Json.List(
            PageSeen.On(Session.Document<PageDocument>(page), TimeSpan.FromMinutes(minutes)),
            (json, one) =>
            {
                json.WriteStartObject();
                json.WriteString("item", TypingHand.NameOf(one.Item, one.Room.Name));
                json.WriteNumber("from", one.Part.From);
                json.WriteNumber("to", one.Part.To);
                json.WriteString("kind", one.Part.Kind.ToString().ToLowerInvariant());
                json.WriteString("value", one.Part.Value);
                json.WriteString("words", one.Words);
                json.WriteString("line", one.Line);
                Json.Corners(json, one.Corners);
                json.WriteEndObject();
            }
        );
}

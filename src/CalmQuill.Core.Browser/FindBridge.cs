using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: finding what is typed on a page. Lengths are 0.01 mm.</summary>
public static partial class FindBridge
{
    /// <summary>
    /// Where words stand, from the top of the page down, as JSON: of each the box around them, <c>area</c>, and the corners of what lies behind them line by line, x
    /// and y in turn, <c>corners</c>.
    /// </summary>
    [JSExport]
    public static string Find(int page, string sought, bool exact) =>
        Json.Text(json =>
        {
            json.WriteStartArray();
            foreach (var one in PageFinding.Find(Session.Document<PageDocument>(page), sought, exact))
            {
                var box = one.Box;
                json.WriteStartObject();
                Json.Numbers(json, "area", [box.Left, box.Top, box.Right, box.Bottom]);
                Json.Corners(json, one.Corners);
                json.WriteEndObject();
            }

            json.WriteEndArray();
        });

    /// <summary>Puts other words where those stand; framed, one step.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="sought">The words.</param>
    /// <param name="exact">Whether case and diacritics must be the same.</param>
    /// <param name="words">What stands there then.</param>
    /// <param name="at">The how-many-eth place, as <see cref="Find"/> has them; −1 for all.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Replace(int page, string sought, bool exact, string words, int at, double now)
    {
        var found = PageFinding.Find(Session.Document<PageDocument>(page), sought, exact);
        var changes = PageFinding.Replace(at < 0 ? found : found.Skip(at).Take(1), TextBridge.Clean(words).ReplaceLineEndings(" "));
        return changes.Count > 0 ? Session.PerformAll(page, changes, now, true) : [];
    }
}

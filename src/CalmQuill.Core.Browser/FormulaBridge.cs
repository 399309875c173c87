using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Formulas;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: formulas on a page. What is typed in one goes through <see cref="TextBridge"/>; lengths are 0.01 mm.</summary>
public static partial class FormulaBridge
{
    private static string made = "";

    /// <summary>Lays an empty formula down; <see cref="Made"/> says its id.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="x">Where it begins.</param>
    /// <param name="y">Where its first line stands.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Add(int page, int x, int y, string layer, double now)
    {
        var bytes = Session.Perform(
            page,
            new Change.ThingAdded(
                ThingKind.Formula,
                Transform.Shift(x, y),
                ThingRules.LeastSide,
                ThingRules.LeastSide,
                new Passage("", []),
                [new ItemValue(ItemField.Shows, DrawnFormula.Value)]
            )
            {
                Layer = Session.LayerOf(layer),
            },
            now
        );
        made = Session.Replica.LastId.ToString();
        return bytes;
    }

    /// <summary>The formula that was laid down last.</summary>
    [JSExport]
    public static string Made() => made;

    /// <summary>The foremost formula at a spot that may be changed; empty for none.</summary>
    [JSExport]
    public static string At(int page, double x, double y) =>
        Session
            .Document<PageDocument>(page)
            .Items.LastOrDefault(item => item is { IsOpen: true, Content: FormulaContent } && item.Content.IsAt(x, y, 0))
            ?.Id.ToString()
        ?? "";

    /// <summary>
    /// A formula as it is shown, as JSON: what was typed, what is done with it, its lines as letters, the letters that it can be worked out for and the one that it
    /// is, what is to be said of it and what is wrong, as sentences; empty where there is none of that id.
    /// </summary>
    [JSExport]
    public static string Formula(int page, string item)
    {
        if (Session.Document<PageDocument>(page).Find(OpId.Parse(item)) is not { Shown: true, Content: FormulaContent content })
            return "";
        var drawn = content.Drawn;
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("text", content.Typed.Text);
            json.WriteString("shows", content[ItemField.Shows]);
            json.WritePropertyName("lines");
            Json.List(json, drawn.Lines, (json, line) => json.WriteStringValue(line));
            json.WritePropertyName("letters");
            Json.List(json, drawn.Letters, (json, letter) => json.WriteStringValue(letter));
            json.WriteString("letter", drawn.For);
            json.WriteString("told", drawn.Told?.Told ?? "");
            json.WriteString("problem", content.Typed.Length > 0 ? drawn.Problem?.Told ?? "" : "");
            json.WriteEndObject();
        });
    }

    /// <summary>What is selected in the text that is typed into: its first letter, and behind its last; nothing where none is typed into.</summary>
    [JSExport]
    public static int[] Selection(int page) =>
        ((OpenPage)Session.Document(page)).Typing is { IsThere: true } hand ? [hand.Selection.From, hand.Selection.To] : [];
}

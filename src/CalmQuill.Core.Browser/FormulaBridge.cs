using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: formulas on a page; <see cref="ThingBridge"/> lays them down, and what is typed in one goes through <see cref="TextBridge"/>.</summary>
public static partial class FormulaBridge
{
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

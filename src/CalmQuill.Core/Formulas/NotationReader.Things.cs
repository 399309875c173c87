using CalmQuill.Core.Units;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Formulas;

/// <content>Things that consist of others: brackets, scripts, fractions, roots, and what commands make.</content>
internal sealed partial class NotationReader
{
    /// <summary>Commands that are passed over: what they say is decided by what stands there.</summary>
    private static readonly HashSet<string> Silent =
    [
        "displaystyle",
        "textstyle",
        "limits",
        "nolimits",
        "big",
        "Big",
        "bigl",
        "bigr",
        "Bigl",
        "Bigr",
        "mathit",
        "mathbf",
        "boldsymbol",
        "tag",
        "notag",
    ];

    private static readonly Dictionary<string, (string Open, string Close, bool Centred)> Grids = new()
    {
        ["matrix"] = ("", "", true),
        ["pmatrix"] = ("(", ")", true),
        ["bmatrix"] = ("[", "]", true),
        ["Bmatrix"] = ("{", "}", true),
        ["vmatrix"] = ("|", "|", true),
        ["cases"] = ("{", "", false),
        ["aligned"] = ("", "", false),
        ["array"] = ("", "", true),
    };

    private static readonly Dictionary<string, string> Sets = new()
    {
        ["R"] = "ℝ",
        ["N"] = "ℕ",
        ["Z"] = "ℤ",
        ["Q"] = "ℚ",
        ["C"] = "ℂ",
    };

    /// <summary>Round brackets that hold a thing together are not shown where a line or its place does that.</summary>
    private Notation Bare(Notation thing) => !commands && thing is Fence { Open: "(", Close: ")" } fence ? fence.Inner : thing;

    private void OpenScript(char sign)
    {
        at++;
        var of = TakeLast() ?? Empty;
        // A sign before what is raised belongs to it.
        Sign? before = null;
        if (!commands && at < text.Length && text[at] is '-' or '+' or '−')
            before = text[at++] is '+' ? Sign.Plus : Sign.Minus;
        Open(
            FrameKind.One,
            sign.ToString(),
            bare =>
            {
                var script = before is null ? Bare(bare) : new Row([before, Bare(bare)]);
                if (sign == '^')
                    Raise(of, script);
                else
                    Add(of is Scripts { Lower: null } has ? has with { Lower = script } : new Scripts(of, script, null));
            }
        );
    }

    private void Raise(Notation of, Notation upper) =>
        Add(of is Scripts { Upper: null } has ? has with { Upper = upper } : new Scripts(of, null, upper));

    /// <summary>A stroke: what stands together before it is over the line, and what stands together behind it below.</summary>
    private void OpenFraction()
    {
        at++;
        var above = new List<Notation>();
        var (items, apart) = (open.Peek().Items, open.Peek().Apart);
        while (items.Count > 0 && !(items[^1] is Sign { Class: not SignClass.Ordinary }))
        {
            var isFirst = apart[^1];
            above.Insert(0, TakeLast()!);
            if (isFirst)
                break;
        }

        if (above.Count == 0)
            Note($"Something is missing before the stroke.");
        Open(FrameKind.Together, "", below => Add(new Fraction(Bare(Of(above)), Bare(below))));
    }

    private void OpenRoot(Notation? degree) => Open(FrameKind.One, "", of => Add(new Root(Bare(of), degree)));

    private void OpenNamed(string word, bool apart) =>
        Open(
            FrameKind.One,
            "",
            of =>
                Add(
                    word switch
                    {
                        "cbrt" => new Root(Bare(of), new Number("3")),
                        "abs" => new Fence("|", Bare(of), "|"),
                        "root" => RootOf(Bare(of)),
                        _ => new Root(Bare(of), null),
                    },
                    apart
                )
        );

    /// <summary>“x, 3” is the third root of x.</summary>
    private static Root RootOf(Notation both)
    {
        var items = both.InRow;
        var comma = items.ToList().FindIndex(item => item is Sign { Text: "," or ";" });
        return comma < 0 ? new Root(both, null) : new Root(Of([.. items.Take(comma)]), Of([.. items.Skip(comma + 1)]));
    }

    private void OpenBracket(string sign, string closing, bool apart)
    {
        at++;
        if (commands && sign == "{")
        {
            Open(FrameKind.Group, "}", inner => Add(inner));
            return;
        }

        Open(FrameKind.Group, closing, inner => Add(new Fence(sign, inner, closing), apart));
    }

    /// <summary>An upright bar opens, unless it can close what another opened.</summary>
    private void ReadBar(bool apart)
    {
        at++;
        SettleForClosing();
        if (open.Peek() is { Kind: FrameKind.Group, Closing: "|", Items.Count: > 0 } frame && !IsOperator(frame.Items[^1]))
            Close();
        else
            Open(FrameKind.Group, "|", inner => Add(new Fence("|", inner, "|"), apart));
    }

    private static bool IsOperator(Notation thing) =>
        thing is Sign { Class: SignClass.Binary or SignClass.Relation or SignClass.Punctuation };

    /// <summary>Closes what is only open until the next sign.</summary>
    private void SettleForClosing()
    {
        while (open.Peek().Kind is FrameKind.One or FrameKind.Together)
        {
            if (open.Peek().Items.Count == 0)
                Note($"Something is missing here.");
            Close();
        }
    }

    private void CloseBracket(string sign)
    {
        SettleForClosing();
        var frame = open.Peek();
        if (frame.Kind != FrameKind.Group || !(frame.Closing == sign || (frame.Closing is ")" or "]" && sign is ")" or "]")))
        {
            Note($"This bracket was not opened.");
            at++;
            Add(new Sign(sign, SignClass.Ordinary));
            return;
        }

        at++;
        open.Pop();
        var whole = frame.Whole;
        // [1, 2; 3, 4] has two rows.
        if (!commands && sign == "]" && frame.Closing == "]" && frame.Items.Exists(item => item is Sign { Text: ";" }))
            whole = GridOf(frame.Items);
        if (frame.Closing == sign)
            frame.Done(whole);
        else
            Add(new Fence(frame.Closing == ")" ? "(" : "[", whole, sign));
    }

    private static Grid GridOf(List<Notation> items)
    {
        var rows = new List<List<Notation>> { new() };
        var cell = new List<Notation>();
        foreach (var item in items.Append(new Sign(";", SignClass.Punctuation)))
        {
            if (item is not Sign { Text: "," or ";" } sign)
            {
                cell.Add(item);
                continue;
            }

            rows[^1].Add(Of([.. cell]));
            cell.Clear();
            if (sign.Text == ";")
                rows.Add([]);
        }

        return new Grid([.. rows.SkipLast(1)], true);
    }

    /// <summary>Reads a command, or what parts the cells of a grid; false where there is none.</summary>
    private bool ReadCommand()
    {
        if (text[at] == '&')
        {
            at++;
            SettleForClosing();
            if (open.Peek().Rows is { } rows)
                EndCell(rows);
            return true;
        }

        if (text[at] != '\\' || at + 1 == text.Length)
            return false;
        Command(CommandName());
        return true;
    }

    /// <summary>The letters behind a command’s sign, or the one sign that stands there.</summary>
    private string CommandName()
    {
        var from = ++at;
        if (Skip(char.IsAsciiLetter) == 0)
            at = Math.Min(text.Length, at + 1);
        return text[from..at];
    }

    private void EndCell(List<List<Notation>> rows)
    {
        var frame = open.Peek();
        rows[^1].Add(frame.Whole);
        frame.Items.Clear();
        frame.Apart.Clear();
    }

    private void EndRow()
    {
        SettleForClosing();
        if (open.Peek().Rows is { } rows)
        {
            EndCell(rows);
            rows.Add([]);
        }
        else if (open.Count == 1)
        {
            lines.Add(open.Pop().Whole);
            open.Push(new Frame(FrameKind.Whole, "", _ => { }));
        }
    }

    private void Command(string name)
    {
        switch (name)
        {
            case "\\":
                EndRow();
                break;
            case "frac" or "dfrac" or "tfrac" or "binom":
                OpenTwo(
                    (above, below) => name == "binom" ? new Fence("(", new Fraction(above, below, false), ")") : new Fraction(above, below)
                );
                break;
            case "sqrt" when at < text.Length && text[at] == '[':
                at++;
                Open(FrameKind.Group, "]", OpenRoot);
                break;
            case "sqrt":
                OpenRoot(null);
                break;
            case "text" or "textrm" or "mathrm" or "operatorname":
                Add(Upright(RawGroup(), name));
                break;
            case "unit" or "si":
                Add(new Measured(UnitReader.Shown(RawGroup())));
                break;
            case "mathbb":
                var letter = RawGroup();
                Add(new Name(Sets.GetValueOrDefault(letter, letter)));
                break;
            case "left":
                var opens = Delimiter();
                Open(FrameKind.Group, "\\right", inner => Add(new Fence(opens, inner, Delimiter())));
                break;
            case "right":
                SettleForClosing();
                if (open.Peek().Closing == "\\right")
                    Close();
                else
                    Note($"This bracket was not opened.");
                break;
            case "begin":
                OpenGrid(RawGroup());
                break;
            case "end":
                RawGroup();
                SettleForClosing();
                if (open.Peek().Rows is not null)
                    Close();
                break;
            default:
                Named(name);
                break;
        }
    }

    private void Named(string name)
    {
        if (NotationSigns.Greek.TryGetValue(name, out var greek))
            Add(new Name(greek));
        else if (NotationSigns.Bigs.TryGetValue(name, out var big))
            Add(new Big(big));
        else if (NotationSigns.Commands.TryGetValue(name, out var sign))
            Add(new Sign(sign, NotationSigns.ClassOf(sign)));
        else if (NotationSigns.Accents.TryGetValue(name, out var mark))
            Open(FrameKind.One, "", of => Add(new Accent(mark, of)));
        else if (NotationSigns.Gaps.TryGetValue(name, out var gap))
            Add(new Gap(gap));
        else if (NotationSigns.Functions.Contains(name))
            Add(new Called(name));
        else if (name is "{" or "}" or "%" or "$" or "#" or "&" or "_" or "|")
            Add(new Sign(name == "|" ? "‖" : name, SignClass.Ordinary));
        else if (!Silent.Contains(name))
        {
            Note($"Nothing is known of “\\{name}”.");
            Add(new Said("\\" + name));
        }
    }

    private void OpenTwo(Func<Notation, Notation, Notation> make) =>
        Open(FrameKind.One, "", one => Open(FrameKind.One, "", other => Add(make(one, other))));

    private void OpenGrid(string name)
    {
        var (opens, closes, centred) = Grids.GetValueOrDefault(name, ("", "", false));
        if (name == "array")
            RawGroup();
        List<List<Notation>> rows =
        [
            [],
        ];
        Open(
            FrameKind.Group,
            "\\end",
            last =>
            {
                if (last is not Row { Items.Count: 0 })
                    rows[^1].Add(last);
                var grid = new Grid([.. rows.Where(row => row.Count > 0)], centred);
                Add(opens.Length + closes.Length > 0 ? new Fence(opens, grid, closes) : grid);
            },
            rows
        );
    }

    private static Notation Upright(string words, string command) =>
        NotationSigns.Functions.Contains(words) || command == "operatorname" ? new Called(words)
        : command == "mathrm" && UnitReader.LengthAt(words, 0) is var length and > 0 && length == words.Length
            ? new Measured(UnitReader.Shown(words))
        : new Said(words);

    private static bool IsBlank(char sign) => sign == ' ';

    /// <summary>What stands in braces, as it is typed; or the next letter alone.</summary>
    private string RawGroup()
    {
        Skip(IsBlank);
        if (at == text.Length)
            return "";
        if (text[at] != '{')
            return text[at++].ToString();
        var end = text.IndexOf('}', at);
        if (end < 0)
        {
            Note($"A bracket is not closed.");
            end = text.Length;
        }

        var inner = text[(at + 1)..end];
        at = Math.Min(text.Length, end + 1);
        return inner;
    }

    /// <summary>The bracket behind <c>\left</c> or <c>\right</c>; empty for the point, which shows none.</summary>
    private string Delimiter()
    {
        Skip(IsBlank);
        if (at == text.Length)
            return "";
        if (text[at] != '\\')
            return text[at++] is var sign and not '.' ? sign.ToString() : "";
        var name = CommandName();
        return NotationSigns.Commands.GetValueOrDefault(name, name is "|" ? "‖" : name);
    }
}

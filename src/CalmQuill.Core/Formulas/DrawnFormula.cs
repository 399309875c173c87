using CalmQuill.Core.Algebra;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Typesetting;
using static CalmQuill.Core.Formulas.Notation;
using Sign = CalmQuill.Core.Formulas.Notation.Sign;

namespace CalmQuill.Core.Formulas;

/// <summary>
/// A formula as it is drawn: its lines set in type, what they come to, and how that was worked out. Lines stand under each other by their first sign between two
/// sides; beside a line stands what is done to both. Places are 0.01 mm from the beginning of the first line, on which it stands.
/// </summary>
public sealed class DrawnFormula
{
    /// <summary>Words that say what is done with it, one of them; that it is told how; and that angles are in degrees.</summary>
    public const string Value = "value",
        Solve = "solve",
        Simplify = "simplify",
        Derive = "derive",
        Integrate = "integrate",
        Steps = "steps",
        Degrees = "degrees";

    /// <summary>The most lines that are shown.</summary>
    public const int MostLines = 40;

    /// <summary>Height of the type, 0.1 pt.</summary>
    private const int Type = 140;

    /// <summary>In hundredths of the type: how far lines are apart at least, and the room between them.</summary>
    private const int Apart = 140,
        Between = 35,
        BetweenBlocks = 60;

    /// <summary>What is higher than this is a block, in hundredths of the type.</summary>
    private const int Block = 190;

    /// <summary>In eighteenths of the type: how far beside a line a note stands, and the room around a relation.</summary>
    private const int BesideLine = 30,
        BesideSign = 5;

    /// <summary>What came out is underlined twice: how far below, how far apart and how thick, 0.01 mm.</summary>
    private const int Under = 70,
        UnderApart = 55,
        UnderThick = 18;

    private readonly List<(Label Label, double X, double Y)> labels = [];
    private readonly List<(double X, double Y)[]> bars = [];
    private readonly List<string> told = [];

    /// <param name="text">What was typed, line by line.</param>
    /// <param name="shows">Words that say what is done with it, parted by blanks.</param>
    /// <param name="letter">The letter that it is worked out for; empty for the first that fits.</param>
    public DrawnFormula(string text, string shows, string letter)
    {
        var words = shows.Split(' ');
        var lines = Read(text);
        var worked = new Working(
            lines,
            Tasks.FirstOrDefault(task => words.Contains(task.Word)).Task,
            letter,
            words.Contains(Degrees),
            words.Contains(Steps)
        ).Do();
        (Letters, For, Told) = (worked.Letters, worked.For, worked.Told);
        Problem ??= worked.Problem;
        var rows = new List<(Notation Line, Notation? Note, bool IsResult)>();
        for (var i = 0; i < lines.Count; i++)
        {
            var behind = worked.Behind.GetValueOrDefault(i);
            rows.Add((behind is null ? lines[i] : new Row([.. lines[i].InRow, .. behind.InRow]), worked.Notes.GetValueOrDefault(i), false));
        }

        rows.AddRange(worked.Below);
        foreach (var (line, note, _) in rows)
            told.Add(NotationText.Of(line) + (note is null ? "" : $"   | {NotationText.Of(note)}"));
        if (MathFont.Find() is { } font)
            Set(rows, new MathSetter(font, Type));
        else
            SetPlainly(told);
    }

    /// <summary>What can be done with it, and the word for that.</summary>
    public static IReadOnlyList<(string Word, FormulaTask Task)> Tasks { get; } =
    [
        (Value, FormulaTask.Value),
        (Solve, FormulaTask.Solve),
        (Simplify, FormulaTask.Simplify),
        (Derive, FormulaTask.Derive),
        (Integrate, FormulaTask.Integrate),
    ];

    /// <summary>All words that <see cref="Items.ItemField.Shows"/> may hold of it.</summary>
    public static IReadOnlySet<string> Words { get; } = new HashSet<string>([.. Tasks.Select(task => task.Word), Steps, Degrees]);

    /// <summary>What is written, and where its letters begin.</summary>
    public IReadOnlyList<(Label Label, double X, double Y)> Labels => labels;

    /// <summary>What is filled, in the colour of the letters.</summary>
    public IReadOnlyList<(double X, double Y)[]> Bars => bars;

    /// <summary>How wide it is, how far it reaches over its first line, and how far below.</summary>
    public (double Width, double Ascent, double Bottom) Extent { get; private set; }

    /// <summary>All that is shown as lines of letters: what was typed, what it comes to, and how.</summary>
    public IReadOnlyList<string> Lines => told;

    /// <summary>The letters that it can be worked out for, and the one that it was.</summary>
    public IReadOnlyList<string> Letters { get; }

    /// <inheritdoc cref="Letters"/>
    public string For { get; }

    /// <summary>Something to be said about what came out; null for nothing.</summary>
    public Sentence? Told { get; }

    /// <summary>What was not understood, or could not be worked out; null where all was.</summary>
    public Sentence? Problem { get; private set; }

    private List<Notation> Read(string text)
    {
        var lines = new List<Notation>();
        foreach (var line in text.Split('\n', '\u2028'))
        {
            if (lines.Count >= MostLines)
            {
                Problem ??= Sentence.Of($"A formula shows at most {MostLines} lines.");
                break;
            }

            try
            {
                lines.AddRange(NotationReader.Read(line, out var problem));
                Problem ??= problem?.Sentence;
            }
            catch (FormulaException problem)
            {
                // It is shown as it was typed: nothing of it is lost.
                Problem ??= problem.Sentence;
                lines.Add(new Said(line.Length > Shown ? Writing.Signs.Whole(line[..Shown]) + "…" : line));
            }
        }

        return lines;
    }

    /// <summary>So much is shown of what cannot be read.</summary>
    private const int Shown = 60;

    private void Set(List<(Notation Line, Notation? Note, bool IsResult)> rows, MathSetter setter)
    {
        var halves = rows.Select(row => Halves(row.Line, setter)).ToList();
        // Where only one line has two sides there is nothing to stand under each other.
        var indent =
            halves.Count(half => half.Right is not null) > 1
                ? halves.Where(half => half.Right is not null).Max(half => half.Left.Width)
                : -1;
        var notesAt = 0.0;
        var placed = new List<(MathBox Box, double X, double Y)>();
        var results = new List<(double Left, double Right, double Y)>();
        double y = 0,
            type = 18 * setter.Eighteenth,
            ascent = type * 0.7;
        for (var i = 0; i < halves.Count; i++)
        {
            var (left, right) = halves[i];
            var from = right is not null && indent >= 0 ? indent - left.Width : 0;
            var box = right is null ? left : MathBox.Of((left, 0, 0), (right, left.Width, 0)) with { Width = left.Width + right.Width };
            if (i > 0)
            {
                // Blocks of several lines stand further apart.
                var room = Math.Max(box.Height, placed[^1].Box.Height) > type * Block / 100 ? BetweenBlocks : Between;
                y += Math.Max(type * Apart / 100, placed[^1].Box.Descent + type * room / 100 + box.Ascent);
            }
            else
                ascent = Math.Max(ascent, box.Ascent);
            placed.Add((box, from, y));
            notesAt = Math.Max(notesAt, from + box.Width);
            if (rows[i].IsResult)
                results.Add(
                    (from + (left.Width > 0 ? 0 : setter.Eighteenth * BesideSign), from + box.Width, y + Math.Max(box.Descent, type * 0.1))
                );
        }

        var width = notesAt;
        for (var i = 0; i < rows.Count; i++)
        {
            if (rows[i].Note is not { } note)
                continue;
            var box = setter.Set(new Row([new Sign("|", SignClass.Ordinary), new Gap(6), .. note.InRow]));
            placed.Add((box, notesAt + BesideLine * setter.Eighteenth, placed[i].Y));
            width = Math.Max(width, notesAt + BesideLine * setter.Eighteenth + box.Width);
        }

        foreach (var (box, x, at) in placed)
        {
            labels.AddRange(box.Letters.Select(one => (one.Label, one.X + x, one.Y + at)));
            bars.AddRange(box.Bars.Select(bar => Region.Box(bar.Left + x, bar.Top + at, bar.Right + x, bar.Bottom + at)));
        }

        foreach (var (left, right, at) in results)
        {
            bars.Add(Region.Box(left, at + Under, right, at + Under + UnderThick));
            bars.Add(Region.Box(left, at + Under + UnderApart, right, at + Under + UnderApart + UnderThick));
        }

        var bottom = placed.Max(one => one.Y + one.Box.Descent) + (results.Count > 0 ? Under + UnderApart + UnderThick : 0);
        Extent = (Math.Max(width, type), Math.Max(ascent, placed.Max(one => one.Box.Ascent - one.Y)), Math.Max(bottom, type * 0.25));
    }

    /// <summary>What stands before the first sign between two sides, and that with all behind it; the latter null where there is none.</summary>
    private static (MathBox Left, MathBox? Right) Halves(Notation line, MathSetter setter)
    {
        var items = line.InRow;
        var at = items.ToList().FindIndex(item => item is Sign { Class: SignClass.Relation });
        if (at < 0)
            return (setter.Set(line), null);
        var left = at == 0 ? MathBox.Empty : setter.Set(new Row([.. items.Take(at)]));
        var right = setter.Set(new Row([.. items.Skip(at)]));
        return (left with { Width = left.Width + (at == 0 ? 0 : BesideSign * setter.Eighteenth) }, right);
    }

    /// <summary>While the font is on its way.</summary>
    private void SetPlainly(IReadOnlyList<string> lines)
    {
        var apart = Lengths.OfType(Type) / (double)Lengths.PerUnit * Apart / 100;
        for (var i = 0; i < lines.Count; i++)
        {
            if (lines[i].Length > 0)
                labels.Add((Label.Of(lines[i], Type), 0, i * apart));
        }

        var width = labels.Count == 0 ? apart : labels.Max(one => one.Label.Width);
        Extent = (width, apart, (lines.Count - 1) * apart + apart / 2);
    }
}

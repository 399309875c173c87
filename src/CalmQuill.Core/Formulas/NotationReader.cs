using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Units;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Formulas;

/// <summary>
/// Reads a line of a formula as it is typed: plainly, <c>(a+b)/2</c>, or with the commands of LaTeX, <c>\frac{a+b}{2}</c>, where it has some. All that can be
/// shown is shown; what is not understood is told beside it.
/// </summary>
/// <remarks>
/// It goes from left to right with one stack of what is still open, so that nesting costs no depth of calls. Plainly typed, what stands together without a blank
/// stays together: <c>1/2x</c> is one over two x, <c>1/2 x</c> is half an x; and what stands behind a number and a blank is its unit where it is one.
/// </remarks>
internal sealed partial class NotationReader
{
    private readonly string text;
    private readonly bool commands;
    private readonly Stack<Frame> open = new();
    private readonly List<Notation> lines = [];
    private int at;

    private NotationReader(string text)
    {
        this.text = text;
        commands = HasCommands(text);
        open.Push(new Frame(FrameKind.Whole, "", _ => { }));
    }

    /// <summary>What something is read as that is still open.</summary>
    private enum FrameKind : byte
    {
        Whole,

        /// <summary>Up to the sign that closes it.</summary>
        Group,

        /// <summary>One thing: what is raised, or belongs to a command.</summary>
        One,

        /// <summary>What stands together: what is below a fraction’s line.</summary>
        Together,
    }

    /// <param name="Kind">How it is read.</param>
    /// <param name="Closing">What closes it; of one thing the sign that makes it go on.</param>
    /// <param name="Done">What becomes of it.</param>
    private sealed record Frame(FrameKind Kind, string Closing, Action<Notation> Done)
    {
        public List<Notation> Items { get; } = [];

        /// <summary>Of each of them whether a blank stands before it.</summary>
        public List<bool> Apart { get; } = [];

        /// <summary>Of a grid its rows so far, the last one as far as it is done; null for anything else.</summary>
        public List<List<Notation>>? Rows { get; init; }

        public Notation Whole => Of([.. Items]);
    }

    /// <summary>What was not understood first, and where; null where all was.</summary>
    private FormulaException? Problem { get; set; }

    /// <summary>Whether a line is typed with commands.</summary>
    public static bool HasCommands(string text)
    {
        for (var i = 0; i + 1 < text.Length; i++)
        {
            if ((text[i] == '\\' && !char.IsWhiteSpace(text[i + 1])) || (text[i] is '^' or '_' && text[i + 1] == '{'))
                return true;
        }

        return false;
    }

    /// <summary>What stands in a line of a formula: as one row, or as several where it says so with commands.</summary>
    /// <param name="text">The line.</param>
    /// <param name="problem">What was not understood first; null where all was.</param>
    /// <exception cref="FormulaException">It is too long, or things stand in each other too deep.</exception>
    public static IReadOnlyList<Notation> Read(string text, out FormulaException? problem)
    {
        if (text.Length > MostLetters)
            throw new FormulaException($"A line of a formula has at most {MostLetters} letters.", MostLetters);
        var reader = new NotationReader(text);
        reader.ReadAll();
        problem = reader.Problem;
        return reader.lines;
    }

    private void ReadAll()
    {
        while (true)
        {
            var apart = Skip(char.IsWhiteSpace) > 0;
            Settle(apart);
            if (at == text.Length)
                break;
            if (!commands || !ReadCommand())
                ReadOne(apart);
        }

        while (open.Peek().Kind != FrameKind.Whole)
        {
            var frame = open.Peek();
            if (frame.Kind == FrameKind.Group)
                Note($"A bracket is not closed.");
            else if (frame.Items.Count == 0)
                Note($"Something is missing at the end.");
            Close();
        }

        lines.Add(open.Peek().Whole);
    }

    /// <summary>Goes on over signs of a kind; how many there were.</summary>
    private int Skip(Func<char, bool> isOfKind)
    {
        var from = at;
        while (at < text.Length && isOfKind(text[at]))
            at++;
        return at - from;
    }

    /// <summary>Closes what has all that belongs to it.</summary>
    private void Settle(bool apart)
    {
        while (open.Peek() is { Items.Count: > 0 } frame)
        {
            var next = at < text.Length ? text[at] : '\0';
            var goesOn = frame.Kind switch
            {
                FrameKind.One => !commands && !apart && frame.Closing.Length > 0 && next == frame.Closing[0],
                FrameKind.Together => next is '^' or '_' or '!'
                    || (next != '\0' && (!apart || frame.Items[^1] is Called) && IsPartOfThing(next)),
                _ => true,
            };
            if (goesOn)
                return;
            Close();
        }
    }

    private static bool IsPartOfThing(char sign) => char.IsLetterOrDigit(sign) || "([{|.√°'′".Contains(sign, StringComparison.Ordinal);

    private void Close()
    {
        var frame = open.Pop();
        frame.Done(frame.Whole);
    }

    private void Open(FrameKind kind, string closing, Action<Notation> done, List<List<Notation>>? rows = null)
    {
        if (open.Count > MostNested)
            throw new FormulaException($"Things stand in each other more than {MostNested} deep.", at);
        open.Push(new Frame(kind, closing, done) { Rows = rows });
    }

    private void Add(Notation thing, bool apart = false)
    {
        if (thing.Depth > MostNested)
            throw new FormulaException($"Things stand in each other more than {MostNested} deep.", at);
        open.Peek().Items.Add(thing);
        open.Peek().Apart.Add(apart);
    }

    private Notation? TakeLast()
    {
        var (items, apart) = (open.Peek().Items, open.Peek().Apart);
        if (items.Count == 0)
            return null;
        var last = items[^1];
        items.RemoveAt(items.Count - 1);
        apart.RemoveAt(apart.Count - 1);
        return last;
    }

    private void Note(Sentence sentence) => Problem ??= new FormulaException(sentence, at);

    private void ReadOne(bool apart)
    {
        var sign = text[at];
        if (char.IsAsciiDigit(sign) || (sign == '.' && at + 1 < text.Length && char.IsAsciiDigit(text[at + 1])))
            ReadNumber(apart);
        else if (char.IsLetter(sign) && NotationSigns.ClassOf(sign.ToString()) == SignClass.Ordinary)
            ReadLetters(apart);
        else if (sign is '^' or '_')
            OpenScript(sign);
        else if (sign == '"')
            ReadWords(apart);
        else if (sign == '/' && !commands)
            OpenFraction();
        else if (sign == '√')
        {
            at++;
            OpenRoot(null);
        }
        else if (FormulaReader.Raised.IndexOf(sign, StringComparison.Ordinal) is var digit and >= 0)
        {
            at++;
            Raise(TakeLast() ?? Empty, new Number(digit.ToString(System.Globalization.CultureInfo.InvariantCulture)));
        }
        else if (sign == '|')
            ReadBar(apart);
        else if (NotationSigns.ClosingOf(sign.ToString()) is { Length: > 0 } closing)
            OpenBracket(sign.ToString(), closing, apart);
        else if (NotationSigns.ClassOf(sign.ToString()) == SignClass.Closing)
            CloseBracket(sign.ToString());
        else
            ReadSign(apart);
    }

    private void ReadSign(bool apart)
    {
        foreach (var (typed, meant) in NotationSigns.Typed)
        {
            if (!text.AsSpan(at).StartsWith(typed, StringComparison.Ordinal))
                continue;
            at += typed.Length;
            Add(new Sign(meant, NotationSigns.ClassOf(meant)), apart);
            return;
        }

        // A sign of two code units stays whole.
        var length = char.IsHighSurrogate(text[at]) && at + 1 < text.Length ? 2 : 1;
        var sign = text.Substring(at, length);
        at += length;
        Add(NotationSigns.Bigs.Values.Contains(sign) ? new Big(sign) : new Sign(sign, NotationSigns.ClassOf(sign)), apart);
    }

    private void ReadNumber(bool apart)
    {
        // Behind a command’s sign each digit is a thing of its own: x^12 raises the 1 alone.
        if (commands && text[at] != '.' && open.Peek().Kind == FrameKind.One)
        {
            Add(new Number(text[at++].ToString()), apart);
            return;
        }

        var from = at;
        Skip(char.IsAsciiDigit);
        if (at + 1 < text.Length && text[at] == '.' && char.IsAsciiDigit(text[at + 1]))
        {
            at++;
            Skip(char.IsAsciiDigit);
        }

        Add(new Number(text[from..at]), apart);
        if (commands)
            return;
        ReadPowerOfTen();
        ReadUnit();
    }

    /// <summary>1e-3 is a number too, but 2e is twice Euler’s.</summary>
    private void ReadPowerOfTen()
    {
        var next = at + 1;
        if (at >= text.Length || text[at] is not ('e' or 'E'))
            return;
        if (next < text.Length && text[next] is '+' or '-')
            next++;
        var digits = next;
        while (digits < text.Length && char.IsAsciiDigit(text[digits]))
            digits++;
        if (digits == next)
            return;
        Add(Sign.Times);
        Notation power = new Number(text[next..digits]);
        if (text[at + 1] == '-')
            power = new Row([Sign.Minus, power]);
        Add(new Scripts(new Number("10"), null, power));
        at = digits;
    }

    /// <summary>What a number is measured in: behind a blank, or where it cannot be a letter that stands for something.</summary>
    private void ReadUnit()
    {
        var from = at;
        while (from < text.Length && text[from] == ' ')
            from++;
        var length = UnitReader.LengthAt(text, from);
        if (length == 0 || (from == at && UnitReader.NameLengthAt(text, from) < 2))
            return;
        Add(new Measured(UnitReader.Shown(text.AsSpan(from, length))));
        at = from + length;
    }

    private void ReadLetters(bool apart)
    {
        var from = at;
        Skip(char.IsLetter);
        var word = text[from..at];
        if (commands)
        {
            at = from + 1;
            Add(new Name(word[..1]), apart);
            return;
        }

        // Behind an arrow stands the unit in which something is asked for.
        if (open.Peek().Items is [.., Sign { Text: "→" } or Said { Text: "to" }] && UnitReader.LengthAt(text, from) is var unit and > 0)
        {
            at = from + unit;
            Add(new Measured(UnitReader.Shown(text.AsSpan(from, unit))));
            return;
        }

        // A word that is lowered is one, as in v_max.
        if (
            word.Length > 1
            && open.Peek() is { Kind: FrameKind.One, Closing: "_", Items.Count: 0 }
            && !NotationSigns.Greek.ContainsKey(word)
        )
        {
            Add(new Said(word), apart);
            return;
        }

        // The longest beginning that is known; the rest stands beside it: “2pi”, “sinx”.
        for (var length = word.Length; length > 1; length--)
        {
            if (ReadWord(word[..length], from + length, apart))
                return;
        }

        at = from + 1;
        // What is summed up is parted from over what.
        if (word is ['d', _] && open.Peek().Items.Exists(item => item is Big or Scripts { Base: Big }))
            Add(new Gap(3), apart);
        Add(new Name(word[..1]), apart && word is not ['d', _]);
    }

    /// <summary>A word that stands for something else than its letters; false for one that does not.</summary>
    private bool ReadWord(string word, int behind, bool apart)
    {
        if (NotationSigns.Greek.TryGetValue(word, out var letter))
            Add(new Name(letter), apart);
        else if (NotationSigns.Bigs.TryGetValue(word, out var big) && behind < text.Length && text[behind] is '_' or ' ' or '(')
            Add(new Big(big), apart);
        else if (word is "infinity" or "oo")
            Add(new Sign("∞", SignClass.Ordinary), apart);
        else if (word is "sqrt" or "cbrt" or "root" or "abs")
        {
            at = behind;
            OpenNamed(word, apart);
            return true;
        }
        else if (NotationSigns.Functions.Contains(word))
            Add(new Called(word), apart);
        else if (word is "of" or "to" or "and" or "or" or "for" or "if")
            Add(new Said(word), apart);
        else
            return false;
        at = behind;
        return true;
    }

    /// <summary>Words in quotation marks.</summary>
    private void ReadWords(bool apart)
    {
        var end = text.IndexOf('"', at + 1);
        if (end < 0)
        {
            Note($"Words are not closed by a quotation mark.");
            end = text.Length;
        }

        Add(new Said(text[(at + 1)..end]), apart);
        at = Math.Min(text.Length, end + 1);
    }
}

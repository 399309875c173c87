using System.Globalization;
using static CalmQuill.Core.Reckoning.Formula;

namespace CalmQuill.Core.Reckoning;

/// <summary>
/// Reads a formula from left to right with one stack of what waits (Dijkstra's shunting yard, 1961), so that nesting costs no depth of calls.
/// </summary>
internal sealed class FormulaReader(string text, IReadOnlyList<string> variables, bool degrees)
{
    private const double Degree = Math.PI / 180;

    /// <summary>So deep brackets may stand in each other.</summary>
    private const int MostNested = 200;

    private readonly List<string> names = [.. variables];
    private readonly List<Step> steps = [];
    private readonly Stack<Waiting> waiting = new();
    private int at;

    /// <summary>Whether a number must come next, and not something between two.</summary>
    private bool wantsNumber = true;
    private int nested;

    /// <summary>How closely things bind, from the loosest.</summary>
    private enum Binding : byte
    {
        Bracket,
        Sum,
        Product,
        Called,
        SideBySide,
        Sign,
        Power,
    }

    /// <summary>Something that waits for what stands to its right.</summary>
    /// <param name="Binding">How closely it binds.</param>
    /// <param name="Kind">The step it becomes.</param>
    private sealed record Waiting(Binding Binding, StepKind Kind)
    {
        /// <summary>The sign that closes a bracket.</summary>
        public char Closing { get; init; }

        /// <summary>What is called with what stands in the bracket, or to the right.</summary>
        public Functions.Function? Called { get; init; }

        /// <summary>How many numbers are in the bracket, the last one included.</summary>
        public int Count { get; set; } = 1;

        /// <summary>The power of <c>sin^2 x</c>, once it is called; NaN for none.</summary>
        public double Raised { get; init; } = double.NaN;
    }

    public Formula Read()
    {
        if (text.Length > MostLetters)
            throw new FormulaException($"A formula has at most {MostLetters} letters.", MostLetters);
        while (true)
        {
            while (at < text.Length && char.IsWhiteSpace(text[at]))
                at++;
            if (at == text.Length)
                break;
            ReadOne(text[at]);
        }

        if (steps.Count == 0 && waiting.Count == 0)
            throw Problem($"Here is no formula yet.");
        if (wantsNumber)
            throw Problem($"Something is missing at the end.");
        while (waiting.TryPeek(out var open))
        {
            if (open.Binding == Binding.Bracket)
                throw Problem($"A bracket is not closed.");
            Do(waiting.Pop());
        }

        return new Formula(steps);
    }

    private void ReadOne(char sign)
    {
        if (char.IsAsciiDigit(sign) || sign == '.')
            ReadNumber();
        else if (char.IsLetter(sign))
            ReadName();
        else if (Brackets.IndexOf(sign) is var bracket and >= 0 && (sign != '|' || wantsNumber || !IsBarOpen))
            Open(Closings[bracket], null, double.NaN);
        else if (Closings.Contains(sign))
            Close(sign);
        else if (sign == '√')
        {
            SideBySide(Binding.Product);
            at++;
            waiting.Push(new Waiting(Binding.Sign, StepKind.Call) { Called = Functions.All["sqrt"] });
        }
        else
            ReadSign(sign);
    }

    /// <summary>Whether an upright bar closes what another opened.</summary>
    private bool IsBarOpen => waiting.FirstOrDefault(one => one.Binding == Binding.Bracket)?.Closing == '|';

    private const string Brackets = "([{|",
        Closings = ")]}|";

    private void ReadSign(char sign)
    {
        switch (sign)
        {
            case '+' when wantsNumber:
                break;
            case '-' or '−' when wantsNumber:
                waiting.Push(new Waiting(Binding.Sign, StepKind.Negate));
                break;
            case '+':
                Between(Binding.Sum, StepKind.Add);
                break;
            case '-' or '−':
                Between(Binding.Sum, StepKind.Subtract);
                break;
            case '*' or '·' or '×' or '∙' or '⋅':
                Between(Binding.Product, StepKind.Multiply);
                break;
            case '/' or '÷' or ':':
                Between(Binding.Product, StepKind.Divide);
                break;
            case '^':
                Between(Binding.Power, StepKind.Power);
                break;
            case ',' or ';':
                NextInBracket();
                break;
            case '!':
                Behind(new Step(StepKind.Factorial, 1));
                break;
            case '%':
                Behind(new Step(StepKind.Number, 0, 0.01), new Step(StepKind.Multiply, 2));
                break;
            case '°':
                Behind(new Step(StepKind.Number, 0, degrees ? 1 : Degree), new Step(StepKind.Multiply, 2));
                break;
            default:
                if (Raised.IndexOf(sign) is var digit and >= 0)
                {
                    Behind(new Step(StepKind.Number, 0, digit), new Step(StepKind.Power, 2));
                    break;
                }

                throw Problem($"Here “{sign.ToString()}” means nothing.");
        }

        at++;
    }

    /// <summary>Raised digits, from 0.</summary>
    internal const string Raised = "⁰¹²³⁴⁵⁶⁷⁸⁹";

    /// <summary>Does something to the number that stands before it.</summary>
    private void Behind(params ReadOnlySpan<Step> done)
    {
        if (wantsNumber)
            throw Problem($"A number is missing before this.");
        foreach (var step in done)
            steps.Add(step);
    }

    private void Between(Binding binding, StepKind kind)
    {
        if (wantsNumber)
            throw Problem($"A number is missing before this.");
        // What binds as closely was there first, but for powers.
        while (waiting.TryPeek(out var before) && (before.Binding > binding || (before.Binding == binding && binding != Binding.Power)))
            Do(waiting.Pop());
        waiting.Push(new Waiting(binding, kind));
        wantsNumber = true;
    }

    /// <summary>What stands beside a number without a sign between is multiplied with it.</summary>
    private void SideBySide(Binding binding = Binding.SideBySide)
    {
        if (!wantsNumber)
            Between(binding, StepKind.Multiply);
    }

    private void ReadNumber()
    {
        SideBySide();
        var from = at;
        while (at < text.Length && (char.IsAsciiDigit(text[at]) || text[at] == '.'))
            at++;
        // 1e-3, but not 2e as twice Euler's number.
        var next = at + 1;
        if (next < text.Length && text[next] is '+' or '-')
            next++;
        if (at < text.Length && text[at] is 'e' or 'E' && next < text.Length && char.IsAsciiDigit(text[next]))
        {
            for (at = next; at < text.Length && char.IsAsciiDigit(text[at]); )
                at++;
        }

        if (!double.TryParse(text.AsSpan(from, at - from), NumberStyles.Float, CultureInfo.InvariantCulture, out var value))
            throw Problem($"No number is written “{text[from..at]}”.");
        Number(value);
    }

    private void ReadName()
    {
        var from = at;
        while (at < text.Length && (char.IsLetterOrDigit(text[at]) || text[at] == '_'))
            at++;
        var name = text[from..at];
        // The longest beginning that is known; the rest stands beside it: “xy”, “2pi”, “sinx”.
        for (var length = name.Length; length > 0; length--)
        {
            var begin = name[..length];
            var variable = names.IndexOf(begin);
            if (variable >= 0)
            {
                at = from + length;
                SideBySide();
                steps.Add(new Step(StepKind.Variable, 0, variable));
                wantsNumber = false;
                return;
            }

            if (Functions.All.TryGetValue(begin, out var function))
            {
                at = from + length;
                Call(function);
                return;
            }

            if (Functions.Constants.TryGetValue(begin, out var constant))
            {
                at = from + length;
                SideBySide();
                Number(constant);
                return;
            }
        }

        at = from;
        throw Problem($"Nothing is known of “{name}”.");
    }

    /// <summary>A function, called with what stands in the brackets behind it, or else with what stands side by side there: <c>sin 2x</c>.</summary>
    private void Call(Functions.Function function)
    {
        SideBySide(Binding.Product);
        var raised = double.NaN;
        var from = at;
        if (at < text.Length && text[at] == '^')
        {
            at++;
            while (at < text.Length && (char.IsAsciiDigit(text[at]) || (at == from + 1 && text[at] is '-' or '−')))
                at++;
            if (
                !double.TryParse(
                    text.AsSpan(from + 1, at - from - 1).ToString().Replace('−', '-'),
                    CultureInfo.InvariantCulture,
                    out raised
                )
            )
                throw Problem($"Behind a function’s name the power is a whole number.");
            if (raised == -1)
                throw Problem($"Write the inverse by its name, as “asin”.");
        }
        else if (at < text.Length && Raised.IndexOf(text[at]) is var digit and >= 0)
        {
            raised = digit;
            at++;
        }

        var next = at;
        while (next < text.Length && char.IsWhiteSpace(text[next]))
            next++;
        if (next < text.Length && Brackets[..3].IndexOf(text[next]) is var bracket and >= 0)
        {
            at = next;
            Open(Closings[bracket], function, raised);
        }
        else if (function.Least > 1)
            throw Problem($"This function takes two numbers, in brackets.");
        else
            waiting.Push(new Waiting(Binding.Called, StepKind.Call) { Called = function, Raised = raised });
    }

    private void Number(double value)
    {
        steps.Add(new Step(StepKind.Number, 0, value));
        wantsNumber = false;
    }

    private void Open(char closing, Functions.Function? called, double raised)
    {
        SideBySide();
        if (++nested > MostNested)
            throw Problem($"Brackets stand in each other more than {MostNested} deep.");
        at++;
        waiting.Push(
            new Waiting(Binding.Bracket, StepKind.Call)
            {
                Closing = closing,
                Called = called ?? (closing == '|' ? Functions.All["abs"] : null),
                Raised = raised,
            }
        );
    }

    private void NextInBracket()
    {
        if (wantsNumber)
            throw Problem($"A number is missing before this.");
        while (waiting.TryPeek(out var before) && before.Binding != Binding.Bracket)
            Do(waiting.Pop());
        if (!waiting.TryPeek(out var bracket) || bracket.Called is null || ++bracket.Count > bracket.Called.Most)
            throw Problem($"Here only one number can stand. A decimal has a point.");
        wantsNumber = true;
    }

    private void Close(char sign)
    {
        if (wantsNumber)
            throw Problem($"A number is missing before this.");
        while (waiting.TryPeek(out var before) && before.Binding != Binding.Bracket)
            Do(waiting.Pop());
        if (!waiting.TryPop(out var bracket) || bracket.Closing != sign)
            throw Problem($"This bracket was not opened.");
        nested--;
        at++;
        if (bracket.Called is not { } called)
            return;
        if (bracket.Count < called.Least)
            throw Problem($"This function takes two numbers, in brackets.");
        Call(called, bracket.Count, bracket.Raised);
    }

    private void Do(Waiting done)
    {
        if (done.Called is { } called)
            Call(called, 1, done.Raised);
        else
            steps.Add(new Step(done.Kind, done.Kind == StepKind.Negate ? 1 : 2));
    }

    private void Call(Functions.Function called, int count, double raised)
    {
        if (called.TakesAngle && degrees)
        {
            steps.Add(new Step(StepKind.Number, 0, Degree));
            steps.Add(new Step(StepKind.Multiply, 2));
        }

        steps.Add(new Step(StepKind.Call, count, called.GivesAngle && degrees ? 1 / Degree : 1, called));
        if (double.IsNaN(raised))
            return;
        steps.Add(new Step(StepKind.Number, 0, raised));
        steps.Add(new Step(StepKind.Power, 2));
    }

    private FormulaException Problem(Sentence sentence) => new(sentence, at);
}

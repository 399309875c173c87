namespace CalmQuill.Core.Reckoning;

/// <summary>
/// A formula as it was typed, ready to be worked out: steps on a stack, each number as often as one likes and without looking at the text again.
/// </summary>
public sealed class Formula
{
    /// <summary>The longest formula, in letters.</summary>
    public const int MostLetters = 2_000;

    private readonly IReadOnlyList<Step> steps;
    private readonly int depth;

    internal Formula(IReadOnlyList<Step> steps)
    {
        this.steps = steps;
        int now = 0,
            most = 0;
        foreach (var step in steps)
        {
            now += 1 - step.Takes;
            most = Math.Max(most, now);
        }

        depth = most;
    }

    /// <summary>Reads a formula.</summary>
    /// <param name="text">As it is typed: <c>2 pi sqrt(l/g)</c>, <c>sin^2 x</c>, <c>x²/2</c>. What stands side by side is multiplied, and binds more
    /// closely than a stroke.</param>
    /// <param name="variables">The names that stand for numbers.</param>
    /// <param name="degrees">Whether angles are degrees; else radians.</param>
    /// <exception cref="FormulaException">It cannot be read.</exception>
    public static Formula Read(string text, IReadOnlyList<string> variables, bool degrees = false) =>
        new FormulaReader(text, variables, degrees).Read();

    /// <summary>Its value; NaN where it has none.</summary>
    /// <param name="values">What the variables stand for, in their order.</param>
    public double At(params ReadOnlySpan<double> values)
    {
        Span<double> stack = depth <= 64 ? stackalloc double[64] : new double[depth];
        var top = 0;
        foreach (var step in steps)
        {
            top -= step.Takes;
            stack[top] = step.Kind switch
            {
                StepKind.Number => step.Value,
                StepKind.Variable => values[(int)step.Value],
                StepKind.Add => stack[top] + stack[top + 1],
                StepKind.Subtract => stack[top] - stack[top + 1],
                StepKind.Multiply => stack[top] * stack[top + 1],
                StepKind.Divide => stack[top] / stack[top + 1],
                StepKind.Power => Functions.Power(stack[top], stack[top + 1]),
                StepKind.Negate => -stack[top],
                StepKind.Factorial => Functions.Factorial(stack[top]),
                _ => step.Function!.Of(stack[top], step.Takes > 1 ? stack[top + 1] : double.NaN) * step.Value,
            };
            top++;
        }

        return stack[0];
    }

    /// <summary>The variables that it depends on, by their numbers.</summary>
    public IEnumerable<int> Variables => steps.Where(step => step.Kind == StepKind.Variable).Select(step => (int)step.Value).Distinct();

    internal enum StepKind : byte
    {
        Number,
        Variable,
        Add,
        Subtract,
        Multiply,
        Divide,
        Power,
        Negate,
        Factorial,
        Call,
    }

    /// <summary>One step.</summary>
    /// <param name="Kind">What it does.</param>
    /// <param name="Takes">How many numbers it takes from the stack.</param>
    /// <param name="Value">The number, the variable's number, or by how much what is called is multiplied.</param>
    /// <param name="Function">What is called.</param>
    internal readonly record struct Step(StepKind Kind, int Takes, double Value = 0, Functions.Function? Function = null);
}

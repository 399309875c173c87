namespace CalmQuill.Core.Algebra;

/// <summary>What is to be done with a formula.</summary>
public enum FormulaTask : byte
{
    /// <summary>It is only shown.</summary>
    None,

    /// <summary>It is worked out with numbers.</summary>
    Value,

    /// <summary>It is solved for a letter.</summary>
    Solve,

    /// <summary>It is written more simply.</summary>
    Simplify,

    /// <summary>Its derivative is told.</summary>
    Derive,

    /// <summary>Its antiderivative is told.</summary>
    Integrate,
}

namespace CalmQuill.Store.People;

/// <summary>Somebody with an account.</summary>
public sealed record Person(Guid Id, string Email, string Name, string Colour, string PasswordHash)
{
    /// <summary>The second factor's secret, encrypted; null while there is none.</summary>
    public byte[]? SecondFactor { get; init; }
}

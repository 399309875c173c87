namespace CalmQuill.Store.People;

/// <summary>Somebody with an account.</summary>
public sealed record Person(Guid Id, string Email, string Name, string Colour, string PasswordHash, Guid SignInKey);

using CalmQuill.Core.Art;
using CalmQuill.Store.People;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.People;

/// <summary>What an account may look like, and making one.</summary>
public static class Accounts
{
    public const int LeastPassword = 8;
    public const int MostPassword = 200;
    public const int MostEmail = 254;

    /// <summary>Passwords that stand in the documentation. They open the demonstration and nothing else.</summary>
    public static readonly IReadOnlySet<string> Published = new HashSet<string>(StringComparer.Ordinal) { "lantern-street" };

    private static string? hashOfNobody;

    public static Sentence? EmailProblem(string email)
    {
        var at = email.IndexOf('@', StringComparison.Ordinal);
        var isOne =
            email.Length is >= 3 and <= MostEmail
            && at >= 1
            && at == email.LastIndexOf('@')
            && at < email.Length - 1
            && email.All(c =>
                !char.IsWhiteSpace(c) && !char.IsControl(c) && !char.IsSurrogate(c) && c is not (',' or ';' or '<' or '>' or '"')
            );
        return isOne ? null : Sentence.Of($"This is not an e-mail address.");
    }

    public static Sentence? PasswordProblem(string password) =>
        password switch
        {
            { Length: < LeastPassword } => $"A password needs at least {LeastPassword} characters.",
            { Length: > MostPassword } => $"A password has at most {MostPassword} characters.",
            _ when Published.Contains(password) => $"This password stands in the documentation. Choose another one.",
            _ => null,
        };

    public static Sentence? ColourProblem(string colour) =>
        Palette.Names.Contains(colour) ? null : Sentence.Of($"A person’s colour is one of the palette’s.");

    public static Person Make(Guid id, string email, string name, string password, IPasswordHasher<Person> hasher)
    {
        var person = new Person(id, email, name, Palette.Names[id.ToByteArray()[15] % Palette.Names.Count], "");
        return person with { PasswordHash = hasher.HashPassword(person, password) };
    }

    /// <summary>Whether a password is a person's. Without a person, or with a password that nobody can have, it takes as long and is false.</summary>
    public static bool IsPassword(this IPasswordHasher<Person> hasher, Person? person, string? password, bool isDemonstration)
    {
        var tried = password is { Length: <= MostPassword } ? password : "";
        var verified =
            hasher.VerifyHashedPassword(person!, person?.PasswordHash ?? HashOfNobody(hasher), tried) != PasswordVerificationResult.Failed;
        return verified && person is not null && tried.Length > 0 && (isDemonstration || !Published.Contains(tried));
    }

    private static string HashOfNobody(IPasswordHasher<Person> hasher) =>
        hashOfNobody ??= hasher.HashPassword(null!, Guid.NewGuid().ToString());
}

using CalmQuill.Core.Library;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.People;

/// <summary>Registering, and changing name, e-mail address and password.</summary>
internal static class PeopleEndpoints
{
    private sealed record NewPerson(string? Name, string? Email, string? Password);

    private sealed record Details(string? Name, string? Email, string? Password);

    private sealed record NewPassword(string? Old, string? New);

    public static void MapPeople(this IEndpointRouteBuilder api)
    {
        api.MapPost("/people", Register);
        api.MapPut("/people/me", ChangeDetails).RequireAuthorization();
        api.MapPut("/people/me/password", ChangePassword).RequireAuthorization();
    }

    private static async Task<IResult> Register(
        NewPerson asked, HttpContext http, PersonStore people, SpaceStore spaces, IPasswordHasher<Person> hasher, SignInLimiter limiter,
        IAntiforgery antiforgery, TimeProvider clock, CancellationToken cancel)
    {
        var (name, email, password) = (asked.Name?.Trim() ?? "", asked.Email?.Trim() ?? "", asked.Password ?? "");
        if ((Names.Problem(name) ?? Accounts.EmailProblem(email) ?? Accounts.PasswordProblem(password)) is { } problem) return Problems.BadInput(problem);
        if (!limiter.Allows("register " + email, http.Connection.RemoteIpAddress?.ToString() ?? ""))
            return Problems.Of(StatusCodes.Status429TooManyRequests, "too-many", "Too many tries. Wait a minute, then try again.");
        var person = Accounts.Make(Guid.NewGuid(), email, name, password, hasher);
        if (!await people.Register(person, Guid.NewGuid(), cancel)) return EmailTaken();
        await http.SignInAs(person);
        return await SessionEndpoints.Show(http, people, spaces, antiforgery, clock, cancel);
    }

    private static async Task<IResult> ChangeDetails(Details asked, HttpContext http, PersonStore people, IPasswordHasher<Person> hasher, CancellationToken cancel)
    {
        var person = (await people.Find(http.User.Id(), cancel))!;
        var (name, email) = (asked.Name?.Trim() ?? person.Name, asked.Email?.Trim() ?? person.Email);
        if ((Names.Problem(name) ?? Accounts.EmailProblem(email)) is { } problem) return Problems.BadInput(problem);
        if (email != person.Email && hasher.VerifyHashedPassword(person, person.PasswordHash, asked.Password ?? "") == PasswordVerificationResult.Failed)
            return Problems.Of(StatusCodes.Status400BadRequest, "wrong-password", "To change the e-mail address, give your password as well.");
        return await people.Update(person with { Name = name, Email = email }, cancel) ? Results.NoContent() : EmailTaken();
    }

    private static async Task<IResult> ChangePassword(NewPassword asked, HttpContext http, PersonStore people, IPasswordHasher<Person> hasher, CancellationToken cancel)
    {
        var person = (await people.Find(http.User.Id(), cancel))!;
        if (hasher.VerifyHashedPassword(person, person.PasswordHash, asked.Old ?? "") == PasswordVerificationResult.Failed)
            return Problems.Of(StatusCodes.Status400BadRequest, "wrong-password", "The old password is not right.");
        if (Accounts.PasswordProblem(asked.New ?? "") is { } problem) return Problems.BadInput(problem);
        var changed = person with { PasswordHash = hasher.HashPassword(person, asked.New!), SignInKey = Guid.NewGuid() };
        await people.Update(changed, cancel);
        await http.SignInAs(changed);
        return Results.NoContent();
    }

    private static IResult EmailTaken() => Problems.Of(StatusCodes.Status409Conflict, "email-taken", "There is an account with this e-mail address already.");
}

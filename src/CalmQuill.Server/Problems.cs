using CalmQuill.Core.Operations;

namespace CalmQuill.Server;

/// <summary>Refusals as <c>application/problem+json</c> (RFC 9457): a code for programs, a sentence for a person.</summary>
internal static class Problems
{
    public static IResult Of(int status, string code, string sentence) =>
        Results.Problem(statusCode: status, title: sentence, extensions: new Dictionary<string, object?> { ["code"] = code });

    public static IResult Of(int status, Refusal refusal) => Of(status, refusal.Code, refusal.Sentence);

    /// <summary>Nothing is revealed about what a stranger asks for.</summary>
    public static IResult NotHere() => Of(StatusCodes.Status404NotFound, "not-here", "There is nothing here that you may see.");

    public static IResult Locked() => Of(StatusCodes.Status423Locked, "locked", "This notebook is locked. Open it with its passphrase.");

    public static IResult NotAllowed(string sentence) => Of(StatusCodes.Status403Forbidden, Refusal.NotAllowedCode, sentence);

    public static IResult BadInput(string sentence) => Of(StatusCodes.Status400BadRequest, "bad-input", sentence);
}

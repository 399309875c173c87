using CalmQuill.Core.Operations;
using CalmQuill.Server.Access;

namespace CalmQuill.Server;

/// <summary>Refusals as <c>application/problem+json</c> (RFC 9457): a code for programs, and a sentence for a person: in English, and as pattern and values.</summary>
internal static class Problems
{
    public static IResult Of(int status, string code, Sentence sentence) =>
        Results.Problem(
            statusCode: status,
            title: sentence.English,
            extensions: new Dictionary<string, object?>
            {
                ["code"] = code,
                ["pattern"] = sentence.Pattern,
                ["values"] = sentence.Values,
            }
        );

    public static IResult Of(int status, Refusal refusal) => Of(status, refusal.Code, refusal.Sentence);

    public static IResult Of(Denial denial) => Of(denial.Status, denial.Code, denial.Sentence);

    public static IResult NotHere() => Of(Denial.NotHere);

    public static IResult NotAllowed(Sentence sentence) => Of(StatusCodes.Status403Forbidden, Refusal.NotAllowedCode, sentence);

    public static IResult BadInput(Sentence sentence) => Of(StatusCodes.Status400BadRequest, "bad-input", sentence);

    public static IResult TooMany() =>
        Of(StatusCodes.Status429TooManyRequests, "too-many", $"Too many tries. Wait a minute, then try again.");
}

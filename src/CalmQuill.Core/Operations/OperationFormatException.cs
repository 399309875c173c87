namespace CalmQuill.Core.Operations;

/// <summary>Bytes or text are not a well-formed batch of operations. The message is a sentence that may be shown.</summary>
public sealed class OperationFormatException(string message, Exception? inner = null) : FormatException(message, inner);

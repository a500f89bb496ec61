using Dibujo.Core.Notations;

namespace Dibujo.Core.Answers;

/// <summary>What a text says, as the browser is told: <c>value</c>, or <c>choices</c> with value and text, or <c>reason</c>.</summary>
public static class ReadingAnswer
{
    /// <summary>Writes it.</summary>
    public static void Write(this AnswerWriter to, Reading reading) => to.Object(() =>
    {
        switch (reading)
        {
            case Reading.Of { Value: var value }:
                to.Value("value", value);
                break;
            case Reading.Open { Choices: var choices }:
                to.List("choices", choices, choice => to.Object(() =>
                {
                    to.Value("value", choice.Value);
                    to.Text("text", choice.Text);
                }));
                break;
            case Reading.None { Reason: var reason }:
                to.Text("reason", reason);
                break;
        }
    });
}

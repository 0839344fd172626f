import { section, type Said } from '../speaking';

export const wording = section('asking', {
	theServerAnsweredTryAgain: (status: Said) =>
		`The server answered ${status}. Try again; what you wrote is still here.`,
	kephalonDoesNotAnswerIsIt: 'Kephalon does not answer. Is it still running? What you wrote is still here.',
	theAnswerBrokeOffOnItsWay: 'The answer broke off on its way. Try again; what you wrote is still here.',
	kephalonFailedItsLogTells: (string: Said) => `Kephalon failed; its log tells more under ${string}. Try again.`,
	stoppedNothingIsTakenBack: 'Stopped: nothing is taken back.',
	stoppedNothingIsReleased: 'Stopped: nothing is released.',
	stoppedAskAgainItGoesOnWhere: 'Stopped. Ask again: it goes on where it stopped.',
	theDrawingEndedBeforeItsTime: 'The drawing ended before its time. Ask again: it goes on where it stopped.'
});

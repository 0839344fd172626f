import type { InOtherWords } from '../speaking';
import type { wording } from '../en/asking';

export const asking: InOtherWords<typeof wording> = {
	theServerAnsweredTryAgain: (status) =>
		`Le serveur a répondu ${status}. Réessayez ; ce que vous avez écrit est toujours ici.`,
	kephalonDoesNotAnswerIsIt: 'Kephalon ne répond pas. Tourne-t-il encore ? Ce que vous avez écrit est toujours ici.',
	theAnswerBrokeOffOnItsWay:
		'La réponse s’est interrompue en chemin. Réessayez ; ce que vous avez écrit est toujours ici.',
	kephalonFailedItsLogTells: (string) => `Kephalon a échoué ; son journal en dit plus sous ${string}. Réessayez.`,
	stoppedNothingIsTakenBack: 'Arrêté : rien n’est annulé.',
	stoppedNothingIsReleased: 'Arrêté : rien n’est publié.',
	stoppedAskAgainItGoesOnWhere: 'Arrêté. Redemandez : cela reprend où cela s’est arrêté.',
	theDrawingEndedBeforeItsTime: 'Le dessin a fini avant terme. Redemandez : cela reprend où cela s’est arrêté.'
};

import { analysisRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerAnalysis } from '$lib/server/compute/harmony';

export const POST = route(analysisRequest, answerAnalysis);

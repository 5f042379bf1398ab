import { triadPathRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerTriadPath } from '$lib/server/compute/neck';

export const POST = route(triadPathRequest, answerTriadPath);

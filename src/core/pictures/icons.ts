import type { Picture } from '../model';
import { CUT_VERSION, keptCopyOf, MEDIA_PATH, versionIn, versionPart } from './shapes';

/** A size of the site's icon, in pixels, and how it is made ready for where it is shown. */
export interface IconFile {
	readonly hash: string;
	readonly size: number;
	/** `solid`: on white, since the place it is shown in puts black behind it. `safe`: with room round it to be cut to any outline. */
	readonly ground: 'clear' | 'solid' | 'safe';
	/** The version of the cutting that it is written by. */
	readonly version: number;
}

/** What browsers show in tabs, bookmarks and lists. */
const LINK_SIZES = [16, 32, 48, 96, 192];
/** What telephones put on their home screens. */
const TOUCH_SIZE = 180;
/** What an installed application shows. */
const MANIFEST_SIZES = [192, 512];

export const nameOfIcon = ({ hash, size, ground, version }: IconFile) =>
	`${[hash, 'icon', size, ...(ground === 'clear' ? [] : [ground]), ...versionPart(version)].join('-')}.png`;

const ICON_NAME = /^([0-9a-f]{24})-icon-(16|32|48|96|180|192|512)(?:-(solid|safe))?(?:-v(\d{1,4}))?\.png$/;

/** The icon that a file's name stands for; undefined for any other name. */
export function readIconName(name: string): IconFile | undefined {
	const found = ICON_NAME.exec(name);
	if (!found) return undefined;
	const [, hash, size, ground = 'clear', version] = found;
	const icon = { hash, size: Number(size), ground, version: versionIn(version) } as IconFile;
	return icon.version <= CUT_VERSION && nameOfIcon(icon) === name ? icon : undefined;
}

/** The sizes that a square picture of the library is made into, none larger than itself; undefined when it is not square. */
export function iconsOf(
	picture: Picture
):
	| { readonly links: readonly IconFile[]; readonly touch?: IconFile; readonly manifest: readonly IconFile[] }
	| undefined {
	const kept = keptCopyOf(picture);
	if (!kept || kept.width !== kept.height || kept.width < LINK_SIZES[0]!) return undefined;
	const hash = kept.file.slice(0, 24);
	const make =
		(ground: IconFile['ground']) =>
		(size: number): IconFile => ({ hash, size, ground, version: CUT_VERSION });
	const fitting = (sizes: readonly number[]) => sizes.filter((size) => size <= kept.width);
	const touch = fitting([TOUCH_SIZE]).map(make('solid'))[0];
	return {
		links: fitting(LINK_SIZES).map(make('clear')),
		...(touch && { touch }),
		manifest: [...fitting(MANIFEST_SIZES).map(make('clear')), ...fitting([512]).map(make('safe'))]
	};
}

/** Where the web manifest stands under a site's base address. */
export const MANIFEST_PATH = '/manifest.webmanifest';

/** What a web manifest says of the site (W3C Web Application Manifest): its name, its icons, its colours. */
export function webManifest(
	site: { readonly name: string; readonly language: string; readonly themeColour?: string },
	icon: Picture
): object | undefined {
	const icons = iconsOf(icon);
	if (!icons || icons.manifest.length === 0) return undefined;
	return {
		name: site.name,
		lang: site.language,
		start_url: '.',
		display: 'browser',
		...(site.themeColour && { theme_color: site.themeColour }),
		icons: icons.manifest.map((file) => ({
			src: MEDIA_PATH.slice(1) + nameOfIcon(file),
			sizes: `${file.size}x${file.size}`,
			type: 'image/png',
			purpose: file.ground === 'safe' ? 'maskable' : 'any'
		}))
	};
}

"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import type {
  AddressesDto,
  AirDto,
  BasemapDto,
  BriefDto,
  DatasetDto,
  DaysDto,
  FeatureDto,
  HardwareDto,
  HistoryDto,
  HubDto,
  ImportDto,
  JobBundle,
  JobSummary,
  KitDto,
  LessonDto,
  LimitsDto,
  LinkBundleDto,
  LinkVerdict,
  NetworkDto,
  PartDto,
  PhotoDto,
  PickDto,
  ProfileDto,
  RoomDto,
  SafetyDto,
  ScanDto,
  UnitDto,
  WiringDto,
} from "@/contract";
import type { Verdict } from "@/core/link";
import { useOpen } from "../state/me";
import { getJson, mayRecover } from "./client";

export type LinkBundle = LinkBundleDto;

export const keys = {
  jobs: ["jobs"] as const,
  job: (id: string) => ["job", id] as const,
  verdicts: (id: string) => ["verdicts", id] as const,
  link: (id: string) => ["link", id] as const,
  profile: (id: string) => ["profile", id] as const,
  hardware: ["hardware"] as const,
  hardwareSteps: ["hardware-steps"] as const,
  history: (id: string) => ["history", id] as const,
  here: (id: string) => ["here", id] as const,
  imports: (id: string) => ["imports", id] as const,
  datasets: ["datasets"] as const,
  room: (id: string) => ["room", id] as const,
  brief: (id: string) => ["brief", id] as const,
  photos: (id: string) => ["photos", id] as const,
  limits: (id: string) => ["limits", id] as const,
  hubs: (id: string) => ["hubs", id] as const,
  network: (id: string) => ["network", id] as const,
  air: (id: string) => ["air", id] as const,
  scans: (id: string) => ["scans", id] as const,
  wirings: (id: string) => ["wirings", id] as const,
  units: (id: string) => ["units", id] as const,
  addresses: (id: string) => ["addresses", id] as const,
  parts: ["parts"] as const,
  kit: (id: string) => ["kit", id] as const,
  days: (id: string) => ["days", id] as const,
  kitVerdict: (id: string) => ["kit-verdict", id] as const,
  lessons: (id: string) => ["lessons", id] as const,
  picks: (id: string) => ["picks", id] as const,
  safety: (id: string) => ["safety", id] as const,
  roof: (id: string) => ["roof", id] as const,
  roofLink: (id: string) => ["roof-link", id] as const,
  losses: (id: string) => ["losses", id] as const,
  basemap: (id: string) => ["basemap", id] as const,
};

/** Verdicts that are being worked out are asked for again until they are there. */
const AGAIN_MS = 600;

export const useJobs = () =>
  useQuery({
    queryKey: keys.jobs,
    queryFn: ({ signal }) => getJson<JobSummary[]>("/api/jobs", signal),
    refetchInterval: (q) => (q.state.data?.some((j) => j.links.some((l) => !l.fresh)) === true ? AGAIN_MS : false),
  });
export const useJob = (id: string) =>
  useQuery({ queryKey: keys.job(id), queryFn: ({ signal }) => getJson<JobBundle>(`/api/jobs/${id}`, signal) });
export const useVerdicts = (id: string) =>
  useQuery({
    queryKey: keys.verdicts(id),
    queryFn: ({ signal }) => getJson<LinkVerdict[]>(`/api/jobs/${id}/verdicts`, signal),
    refetchInterval: (q) => (q.state.data?.some((l) => !l.fresh) === true ? AGAIN_MS : false),
  });
export const useLink = (jobId: string, id: string) =>
  useQuery({
    queryKey: keys.link(id),
    queryFn: ({ signal }) => getJson<LinkBundle>(`/api/jobs/${jobId}/links/${id}`, signal),
    refetchOnWindowFocus: false,
  });
export const useProfile = (jobId: string, id: string) =>
  useQuery({
    queryKey: keys.profile(id),
    queryFn: ({ signal }) => getJson<ProfileDto>(`/api/jobs/${jobId}/links/${id}/profile`, signal),
    refetchOnWindowFocus: false,
  });
/** The path of a kept design that stands at other mounting points; asked for only when there is one. */
export const useKeptProfile = (jobId: string, linkId: string, designId: string | null) =>
  useQuery({
    queryKey: [...keys.profile(linkId), designId],
    queryFn: ({ signal }) => getJson<ProfileDto>(`/api/jobs/${jobId}/links/${linkId}/profile?design=${designId}`, signal),
    enabled: designId !== null,
    refetchOnWindowFocus: false,
  });
export const useHardware = () =>
  useQuery({ queryKey: keys.hardware, queryFn: ({ signal }) => getJson<HardwareDto>("/api/hardware", signal), staleTime: 60_000 });

export const useHistory = (id: string) =>
  useQuery({
    queryKey: keys.history(id),
    queryFn: ({ signal }) => getJson<HistoryDto>(`/api/jobs/${id}/history`, signal),
    enabled: useOpen().asks("see-history"),
  });
export const useImports = (id: string) =>
  useQuery({ queryKey: keys.imports(id), queryFn: ({ signal }) => getJson<ImportDto[]>(`/api/jobs/${id}/imports`, signal) });
/** Why the queue does not go on, in words, while something waits in it; null when it does. */
export const useHeldUp = (waiting: boolean): string | null => {
  const health = useQuery({
    queryKey: ["health"],
    queryFn: ({ signal }) => getJson<{ worker: string }>("/api/health", signal),
    enabled: waiting,
    refetchInterval: 3000,
    retry: false,
  });
  if (!waiting) return null;
  if (health.error !== null) return mayRecover(health.error) ? "waiting for the database" : null;
  return health.data?.worker === "away" ? "waiting for the worker, which is being started" : null;
};

export const useRoom = (jobId: string) =>
  useQuery({ queryKey: keys.room(jobId), queryFn: ({ signal }) => getJson<RoomDto>(`/api/jobs/${jobId}/uploads`, signal) });
export const useDatasets = (jobId: string) =>
  useQuery({ queryKey: keys.datasets, queryFn: ({ signal }) => getJson<DatasetDto[]>(`/api/jobs/${jobId}/datasets`, signal) });
export const useBrief = (id: string) =>
  useQuery({
    queryKey: keys.brief(id),
    queryFn: ({ signal }) => getJson<BriefDto>(`/api/jobs/${id}/brief`, signal),
    enabled: useOpen().sees("brief"),
  });
export const useLimits = (id: string) =>
  useQuery({ queryKey: keys.limits(id), queryFn: ({ signal }) => getJson<LimitsDto>(`/api/jobs/${id}/limits`, signal) });
export const useNetwork = (id: string) =>
  useQuery({ queryKey: keys.network(id), queryFn: ({ signal }) => getJson<NetworkDto>(`/api/jobs/${id}/network`, signal) });
export const useHubs = (id: string) =>
  useQuery({ queryKey: keys.hubs(id), queryFn: ({ signal }) => getJson<HubDto[]>(`/api/jobs/${id}/hubs`, signal) });
export const useAir = (id: string) =>
  useQuery({ queryKey: keys.air(id), queryFn: ({ signal }) => getJson<AirDto>(`/api/jobs/${id}/air`, signal) });
export const useScans = (id: string) =>
  useQuery({ queryKey: keys.scans(id), queryFn: ({ signal }) => getJson<ScanDto[]>(`/api/jobs/${id}/scans`, signal) });
export const useWirings = (id: string) =>
  useQuery({ queryKey: keys.wirings(id), queryFn: ({ signal }) => getJson<WiringDto[]>(`/api/jobs/${id}/wirings`, signal) });
export const useUnits = (id: string) =>
  useQuery({ queryKey: keys.units(id), queryFn: ({ signal }) => getJson<UnitDto[]>(`/api/jobs/${id}/units`, signal) });
export const useAddresses = (id: string) =>
  useQuery({ queryKey: keys.addresses(id), queryFn: ({ signal }) => getJson<AddressesDto>(`/api/jobs/${id}/addresses`, signal) });
export const useKit = (id: string) =>
  useQuery({ queryKey: keys.kit(id), queryFn: ({ signal }) => getJson<KitDto>(`/api/jobs/${id}/kit`, signal) });
export const useDays = (id: string) =>
  useQuery({ queryKey: keys.days(id), queryFn: ({ signal }) => getJson<DaysDto>(`/api/jobs/${id}/days`, signal) });
/** What the kit comes to: of one link's ends, or of the job. */
export const useKitVerdict = (id: string, linkId: string | null) =>
  useQuery({
    queryKey: [...keys.kitVerdict(id), linkId],
    queryFn: ({ signal }) =>
      getJson<{ verdict: Verdict | null }>(`/api/jobs/${id}/kit-verdict${linkId === null ? "" : `?link=${linkId}`}`, signal),
    enabled: useOpen().asks("see-kit"),
  });

/** What other jobs taught. */
export const useLessons = (id: string) =>
  useQuery({
    queryKey: keys.lessons(id),
    queryFn: ({ signal }) => getJson<LessonDto[]>(`/api/jobs/${id}/lessons`, signal),
    enabled: useOpen().asks("see-history"),
  });

export const usePicks = (id: string) =>
  useQuery({ queryKey: keys.picks(id), queryFn: ({ signal }) => getJson<PickDto[]>(`/api/jobs/${id}/picks`, signal) });
export const useSafety = (id: string) =>
  useQuery({ queryKey: keys.safety(id), queryFn: ({ signal }) => getJson<SafetyDto[]>(`/api/jobs/${id}/safety`, signal) });
export const useParts = () =>
  useQuery({ queryKey: keys.parts, queryFn: ({ signal }) => getJson<PartDto[]>("/api/hardware/parts", signal), staleTime: 60_000 });
/** Loss by ground and bodies between the ends of the job's radios, by the keys of both. */
export const useLosses = (id: string) =>
  useQuery({
    queryKey: keys.losses(id),
    queryFn: ({ signal }) => getJson<{ losses: Readonly<Record<string, number>> }>(`/api/jobs/${id}/air/losses`, signal),
  });
export const usePhotos = (id: string) =>
  useQuery({
    queryKey: keys.photos(id),
    queryFn: ({ signal }) => getJson<PhotoDto[]>(`/api/jobs/${id}/photos`, signal),
    enabled: useOpen().asks("see-photos"),
  });
/** Named ground around some places of a job. */
export const useFeatures = (id: string, around: readonly { readonly latDeg: number; readonly lonDeg: number }[], wanted: boolean) => {
  // The route tells all named ground of the job beside the obstacles of a box: the box is kept small.
  const reachDeg = 0.0001;
  const lat = around.map((p) => p.latDeg);
  const lon = around.map((p) => p.lonDeg);
  const box = new URLSearchParams({
    westDeg: String(Math.min(...lon) - reachDeg),
    southDeg: String(Math.min(...lat) - reachDeg),
    eastDeg: String(Math.max(...lon) + reachDeg),
    northDeg: String(Math.max(...lat) + reachDeg),
  });
  return useQuery({
    queryKey: ["features", id, box.toString()],
    queryFn: ({ signal }) => getJson<{ features: FeatureDto[] }>(`/api/jobs/${id}/obstacles?${box}`, signal),
    enabled: wanted,
  });
};
export const useBasemap = (id: string) =>
  useQuery({
    queryKey: keys.basemap(id),
    queryFn: ({ signal }) => getJson<{ basemap: BasemapDto | null }>(`/api/jobs/${id}/basemap`, signal),
  });

/** Marks everything of a job as stale after an edit. */
export const useRefresh = (): ((jobId: string) => Promise<void>) => {
  const client = useQueryClient();
  // The same function always: effects may wait on it.
  return useCallback(
    async (jobId: string) => {
      await Promise.all([
        client.invalidateQueries({ queryKey: keys.jobs }),
        client.invalidateQueries({ queryKey: keys.job(jobId) }),
        client.invalidateQueries({ queryKey: keys.verdicts(jobId) }),
        client.invalidateQueries({ queryKey: ["profile"] }),
        client.invalidateQueries({ queryKey: ["link"] }),
        client.invalidateQueries({ queryKey: keys.history(jobId) }),
        client.invalidateQueries({ queryKey: keys.imports(jobId) }),
        client.invalidateQueries({ queryKey: keys.datasets }),
        client.invalidateQueries({ queryKey: keys.room(jobId) }),
        client.invalidateQueries({ queryKey: keys.brief(jobId) }),
        client.invalidateQueries({ queryKey: keys.photos(jobId) }),
        client.invalidateQueries({ queryKey: keys.limits(jobId) }),
        client.invalidateQueries({ queryKey: keys.hubs(jobId) }),
        client.invalidateQueries({ queryKey: keys.network(jobId) }),
        client.invalidateQueries({ queryKey: keys.air(jobId) }),
        client.invalidateQueries({ queryKey: keys.scans(jobId) }),
        client.invalidateQueries({ queryKey: keys.losses(jobId) }),
        client.invalidateQueries({ queryKey: keys.wirings(jobId) }),
        client.invalidateQueries({ queryKey: keys.units(jobId) }),
        client.invalidateQueries({ queryKey: keys.addresses(jobId) }),
        client.invalidateQueries({ queryKey: keys.kit(jobId) }),
        client.invalidateQueries({ queryKey: keys.kitVerdict(jobId) }),
        client.invalidateQueries({ queryKey: keys.picks(jobId) }),
        client.invalidateQueries({ queryKey: keys.days(jobId) }),
        client.invalidateQueries({ queryKey: keys.safety(jobId) }),
        client.invalidateQueries({ queryKey: keys.parts }),
        client.invalidateQueries({ queryKey: keys.basemap(jobId) }),
      ]);
    },
    [client],
  );
};

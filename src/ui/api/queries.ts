"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { HardwareDto, JobBundle, JobDto, JobSummary, LinkDto, LinkVerdict, ProfileDto, SiteDto } from "@/contract";
import { getJson } from "./client";

export interface LinkBundle {
  readonly job: JobDto;
  readonly link: LinkDto;
  readonly near: SiteDto;
  readonly far: SiteDto;
}

export const keys = {
  jobs: ["jobs"] as const,
  job: (id: string) => ["job", id] as const,
  verdicts: (id: string) => ["verdicts", id] as const,
  link: (id: string) => ["link", id] as const,
  profile: (id: string) => ["profile", id] as const,
  hardware: ["hardware"] as const,
};

export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: ({ signal }) => getJson<JobSummary[]>("/api/jobs", signal) });
export const useJob = (id: string) =>
  useQuery({ queryKey: keys.job(id), queryFn: ({ signal }) => getJson<JobBundle>(`/api/jobs/${id}`, signal) });
export const useVerdicts = (id: string) =>
  useQuery({ queryKey: keys.verdicts(id), queryFn: ({ signal }) => getJson<LinkVerdict[]>(`/api/jobs/${id}/verdicts`, signal) });
export const useLink = (id: string) =>
  useQuery({
    queryKey: keys.link(id),
    queryFn: ({ signal }) => getJson<LinkBundle>(`/api/links/${id}`, signal),
    refetchOnWindowFocus: false,
  });
export const useProfile = (id: string) =>
  useQuery({
    queryKey: keys.profile(id),
    queryFn: ({ signal }) => getJson<ProfileDto>(`/api/links/${id}/profile`, signal),
    refetchOnWindowFocus: false,
  });
export const useHardware = () =>
  useQuery({ queryKey: keys.hardware, queryFn: ({ signal }) => getJson<HardwareDto>("/api/hardware", signal), staleTime: 60_000 });

/** Marks everything of a job as stale after an edit. */
export const useRefresh = (): ((jobId: string) => Promise<void>) => {
  const client = useQueryClient();
  return async (jobId) => {
    await Promise.all([
      client.invalidateQueries({ queryKey: keys.jobs }),
      client.invalidateQueries({ queryKey: keys.job(jobId) }),
      client.invalidateQueries({ queryKey: keys.verdicts(jobId) }),
      client.invalidateQueries({ queryKey: ["profile"] }),
      client.invalidateQueries({ queryKey: ["link"] }),
    ]);
  };
};

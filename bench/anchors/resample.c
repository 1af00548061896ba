// gcc -O3 -march=native -mprefer-vector-width=512 -ffast-math -pthread resample.c -o data/resample -lm
// usage: data/resample data/W1.bin MODE THREADS [REPS] [B] [dump.json]
// MODE: idx    = index-based, row products formed on the fly, triangle accumulated
//       gather = index-based, row products precomputed, add-only, vector accumulators
//       gemm   = u8 counts, register-blocked micro-kernel (6 resamples x strip of row-products)
//       rng    = only index generation (no fit)   rngv = same, 16 streams side by side
// Same xoshiro128** stream per resample everywhere => results agree with the JS / numpy --shared runs.
#define _GNU_SOURCE
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <stdint.h>
#include <math.h>
#include <pthread.h>
#include <time.h>
#define SEED 12345u
typedef double v8 __attribute__((vector_size(64),aligned(64)));
typedef uint32_t u16v __attribute__((vector_size(64),aligned(64)));
static int n,p,K,ends[8],ia,ib,G,gs[8],B=10000,NT,NS,q,TR,TRP; static double*D; static const char*mode;
static double now(){struct timespec t;clock_gettime(CLOCK_MONOTONIC,&t);return t.tv_sec*1e3+t.tv_nsec*1e-6;}
static inline uint32_t mix(uint32_t x){x^=x>>16;x*=0x21f0aaad;x^=x>>15;x*=0x735a2d97;x^=x>>15;return x;}
static inline uint32_t rot(uint32_t v,int k){return v<<k|v>>(32-k);}
static void seed(uint32_t st,uint32_t*s){uint32_t x=mix(st^SEED);for(int i=0;i<4;i++)s[i]=mix(x+(uint32_t)(i+1)*0x9E3779B9u);}
static inline uint32_t nxt(uint32_t*s){uint32_t r=rot(s[1]*5,7)*9,t=s[1]<<9;s[2]^=s[0];s[3]^=s[1];s[1]^=s[2];s[0]^=s[3];s[2]^=t;s[3]=rot(s[3],11);return r;}
// 16 streams; out[l*cnt+i]
static void draw16(uint32_t st,int m,int cnt,uint32_t*out){u16v s0,s1,s2,s3;
  for(int l=0;l<16;l++){uint32_t s[4];seed(st+l,s);s0[l]=s[0];s1[l]=s[1];s2[l]=s[2];s3[l]=s[3];}
  uint32_t tmp[16*16] __attribute__((aligned(64)));
  for(int i0=0;i0<cnt;i0+=16){int w=cnt-i0<16?cnt-i0:16;
    for(int i=0;i<w;i++){u16v a=s1*5,r=((a<<7)|(a>>25))*9,t=s1<<9;s2^=s0;s3^=s1;s1^=s2;s0^=s3;s2^=t;s3=(s3<<11)|(s3>>21);
      uint32_t*o=tmp+i*16;for(int l=0;l<16;l++)o[l]=((uint64_t)r[l]*(uint32_t)m)>>32;}
    if(w==16)for(int l=0;l<16;l++)for(int i=0;i<16;i++)out[(size_t)l*cnt+i0+i]=tmp[i*16+l];
    else for(int l=0;l<16;l++)for(int i=0;i<w;i++)out[(size_t)l*cnt+i0+i]=tmp[i*16+l];}}
// full symmetric gram in upper triangle tr[] -> stats
static void fit(const double*tr,int m,double*o){double L[15][15],mean[15],sd[15];int k=0;double A[15][15];
  for(int i=0;i<q;i++)for(int j=i;j<q;j++)A[j][i]=tr[k++];
  for(int i=0;i<q;i++){mean[i]=A[i][0]/m;sd[i]=sqrt(fmax(0,(A[i][i]-m*mean[i]*mean[i])/(m-1)));}
  double iv[15];
  for(int j=0;j<q;j++){double s=A[j][j];for(int t=0;t<j;t++)s-=L[j][t]*L[j][t];double d=sqrt(s);L[j][j]=d;iv[j]=1/d;
    for(int i=j+1;i<q;i++){double v=A[i][j];for(int t=0;t<j;t++)v-=L[i][t]*L[j][t];L[i][j]=v*iv[j];}}
  double*b=o;for(int i=p-1;i>=0;i--){double v=L[p][i];for(int t=i+1;t<p;t++)v-=L[t][i]*b[t];b[i]=v*iv[i];}
  double*be=o+p,suf[16];suf[q]=0;for(int i=q-1;i>=0;i--)suf[i]=suf[i+1]+L[p][i]*L[p][i];
  double tss=suf[1],sy=sqrt(tss/(m-1));
  for(int j=1;j<p;j++)be[j-1]=b[j]*sd[j]/sy;double bi=b[p-1];
  be[ia-1]=(b[ia]+bi*mean[ib])*sd[ia]/sy;be[ib-1]=(b[ib]+bi*mean[ia])*sd[ib]/sy;be[p-2]=bi*sd[ia]*sd[ib]/sy;
  double*R=be+p-1;for(k=0;k<K;k++)R[k]=1-suf[ends[k]]/tss;for(k=1;k<K;k++)R[K+k-1]=R[k]-R[k-1];}
static double*P[8];static double*rep;static double*Xg[8]; // rep: G x B x NS
/*KERNELS*/
static void mk64(const double*restrict pk,const double*restrict C,int ldc,int kc,double*restrict acc,int tot){
  v8 a00=*(v8*)(acc+0*tot+0);v8 a01=*(v8*)(acc+0*tot+8);v8 a02=*(v8*)(acc+0*tot+16);v8 a03=*(v8*)(acc+0*tot+24);const double*c0=C+(size_t)0*ldc;
  v8 a10=*(v8*)(acc+1*tot+0);v8 a11=*(v8*)(acc+1*tot+8);v8 a12=*(v8*)(acc+1*tot+16);v8 a13=*(v8*)(acc+1*tot+24);const double*c1=C+(size_t)1*ldc;
  v8 a20=*(v8*)(acc+2*tot+0);v8 a21=*(v8*)(acc+2*tot+8);v8 a22=*(v8*)(acc+2*tot+16);v8 a23=*(v8*)(acc+2*tot+24);const double*c2=C+(size_t)2*ldc;
  v8 a30=*(v8*)(acc+3*tot+0);v8 a31=*(v8*)(acc+3*tot+8);v8 a32=*(v8*)(acc+3*tot+16);v8 a33=*(v8*)(acc+3*tot+24);const double*c3=C+(size_t)3*ldc;
  v8 a40=*(v8*)(acc+4*tot+0);v8 a41=*(v8*)(acc+4*tot+8);v8 a42=*(v8*)(acc+4*tot+16);v8 a43=*(v8*)(acc+4*tot+24);const double*c4=C+(size_t)4*ldc;
  v8 a50=*(v8*)(acc+5*tot+0);v8 a51=*(v8*)(acc+5*tot+8);v8 a52=*(v8*)(acc+5*tot+16);v8 a53=*(v8*)(acc+5*tot+24);const double*c5=C+(size_t)5*ldc;
  for(int k=0;k<kc;k++,pk+=tot){v8 b0=*(const v8*)(pk+0);v8 b1=*(const v8*)(pk+8);v8 b2=*(const v8*)(pk+16);v8 b3=*(const v8*)(pk+24);double c;
    c=c0[k];a00+=b0*c;a01+=b1*c;a02+=b2*c;a03+=b3*c;
    c=c1[k];a10+=b0*c;a11+=b1*c;a12+=b2*c;a13+=b3*c;
    c=c2[k];a20+=b0*c;a21+=b1*c;a22+=b2*c;a23+=b3*c;
    c=c3[k];a30+=b0*c;a31+=b1*c;a32+=b2*c;a33+=b3*c;
    c=c4[k];a40+=b0*c;a41+=b1*c;a42+=b2*c;a43+=b3*c;
    c=c5[k];a50+=b0*c;a51+=b1*c;a52+=b2*c;a53+=b3*c;
  }
  *(v8*)(acc+0*tot+0)=a00;*(v8*)(acc+0*tot+8)=a01;*(v8*)(acc+0*tot+16)=a02;*(v8*)(acc+0*tot+24)=a03;
  *(v8*)(acc+1*tot+0)=a10;*(v8*)(acc+1*tot+8)=a11;*(v8*)(acc+1*tot+16)=a12;*(v8*)(acc+1*tot+24)=a13;
  *(v8*)(acc+2*tot+0)=a20;*(v8*)(acc+2*tot+8)=a21;*(v8*)(acc+2*tot+16)=a22;*(v8*)(acc+2*tot+24)=a23;
  *(v8*)(acc+3*tot+0)=a30;*(v8*)(acc+3*tot+8)=a31;*(v8*)(acc+3*tot+16)=a32;*(v8*)(acc+3*tot+24)=a33;
  *(v8*)(acc+4*tot+0)=a40;*(v8*)(acc+4*tot+8)=a41;*(v8*)(acc+4*tot+16)=a42;*(v8*)(acc+4*tot+24)=a43;
  *(v8*)(acc+5*tot+0)=a50;*(v8*)(acc+5*tot+8)=a51;*(v8*)(acc+5*tot+16)=a52;*(v8*)(acc+5*tot+24)=a53;
}
static void mk44(const double*restrict pk,const double*restrict C,int ldc,int kc,double*restrict acc,int tot){
  v8 a00=*(v8*)(acc+0*tot+0);v8 a01=*(v8*)(acc+0*tot+8);v8 a02=*(v8*)(acc+0*tot+16);v8 a03=*(v8*)(acc+0*tot+24);const double*c0=C+(size_t)0*ldc;
  v8 a10=*(v8*)(acc+1*tot+0);v8 a11=*(v8*)(acc+1*tot+8);v8 a12=*(v8*)(acc+1*tot+16);v8 a13=*(v8*)(acc+1*tot+24);const double*c1=C+(size_t)1*ldc;
  v8 a20=*(v8*)(acc+2*tot+0);v8 a21=*(v8*)(acc+2*tot+8);v8 a22=*(v8*)(acc+2*tot+16);v8 a23=*(v8*)(acc+2*tot+24);const double*c2=C+(size_t)2*ldc;
  v8 a30=*(v8*)(acc+3*tot+0);v8 a31=*(v8*)(acc+3*tot+8);v8 a32=*(v8*)(acc+3*tot+16);v8 a33=*(v8*)(acc+3*tot+24);const double*c3=C+(size_t)3*ldc;
  for(int k=0;k<kc;k++,pk+=tot){v8 b0=*(const v8*)(pk+0);v8 b1=*(const v8*)(pk+8);v8 b2=*(const v8*)(pk+16);v8 b3=*(const v8*)(pk+24);double c;
    c=c0[k];a00+=b0*c;a01+=b1*c;a02+=b2*c;a03+=b3*c;
    c=c1[k];a10+=b0*c;a11+=b1*c;a12+=b2*c;a13+=b3*c;
    c=c2[k];a20+=b0*c;a21+=b1*c;a22+=b2*c;a23+=b3*c;
    c=c3[k];a30+=b0*c;a31+=b1*c;a32+=b2*c;a33+=b3*c;
  }
  *(v8*)(acc+0*tot+0)=a00;*(v8*)(acc+0*tot+8)=a01;*(v8*)(acc+0*tot+16)=a02;*(v8*)(acc+0*tot+24)=a03;
  *(v8*)(acc+1*tot+0)=a10;*(v8*)(acc+1*tot+8)=a11;*(v8*)(acc+1*tot+16)=a12;*(v8*)(acc+1*tot+24)=a13;
  *(v8*)(acc+2*tot+0)=a20;*(v8*)(acc+2*tot+8)=a21;*(v8*)(acc+2*tot+16)=a22;*(v8*)(acc+2*tot+24)=a23;
  *(v8*)(acc+3*tot+0)=a30;*(v8*)(acc+3*tot+8)=a31;*(v8*)(acc+3*tot+16)=a32;*(v8*)(acc+3*tot+24)=a33;
}
static void mk45(const double*restrict pk,const double*restrict C,int ldc,int kc,double*restrict acc,int tot){
  v8 a00=*(v8*)(acc+0*tot+0);v8 a01=*(v8*)(acc+0*tot+8);v8 a02=*(v8*)(acc+0*tot+16);v8 a03=*(v8*)(acc+0*tot+24);v8 a04=*(v8*)(acc+0*tot+32);const double*c0=C+(size_t)0*ldc;
  v8 a10=*(v8*)(acc+1*tot+0);v8 a11=*(v8*)(acc+1*tot+8);v8 a12=*(v8*)(acc+1*tot+16);v8 a13=*(v8*)(acc+1*tot+24);v8 a14=*(v8*)(acc+1*tot+32);const double*c1=C+(size_t)1*ldc;
  v8 a20=*(v8*)(acc+2*tot+0);v8 a21=*(v8*)(acc+2*tot+8);v8 a22=*(v8*)(acc+2*tot+16);v8 a23=*(v8*)(acc+2*tot+24);v8 a24=*(v8*)(acc+2*tot+32);const double*c2=C+(size_t)2*ldc;
  v8 a30=*(v8*)(acc+3*tot+0);v8 a31=*(v8*)(acc+3*tot+8);v8 a32=*(v8*)(acc+3*tot+16);v8 a33=*(v8*)(acc+3*tot+24);v8 a34=*(v8*)(acc+3*tot+32);const double*c3=C+(size_t)3*ldc;
  for(int k=0;k<kc;k++,pk+=tot){v8 b0=*(const v8*)(pk+0);v8 b1=*(const v8*)(pk+8);v8 b2=*(const v8*)(pk+16);v8 b3=*(const v8*)(pk+24);v8 b4=*(const v8*)(pk+32);double c;
    c=c0[k];a00+=b0*c;a01+=b1*c;a02+=b2*c;a03+=b3*c;a04+=b4*c;
    c=c1[k];a10+=b0*c;a11+=b1*c;a12+=b2*c;a13+=b3*c;a14+=b4*c;
    c=c2[k];a20+=b0*c;a21+=b1*c;a22+=b2*c;a23+=b3*c;a24+=b4*c;
    c=c3[k];a30+=b0*c;a31+=b1*c;a32+=b2*c;a33+=b3*c;a34+=b4*c;
  }
  *(v8*)(acc+0*tot+0)=a00;*(v8*)(acc+0*tot+8)=a01;*(v8*)(acc+0*tot+16)=a02;*(v8*)(acc+0*tot+24)=a03;*(v8*)(acc+0*tot+32)=a04;
  *(v8*)(acc+1*tot+0)=a10;*(v8*)(acc+1*tot+8)=a11;*(v8*)(acc+1*tot+16)=a12;*(v8*)(acc+1*tot+24)=a13;*(v8*)(acc+1*tot+32)=a14;
  *(v8*)(acc+2*tot+0)=a20;*(v8*)(acc+2*tot+8)=a21;*(v8*)(acc+2*tot+16)=a22;*(v8*)(acc+2*tot+24)=a23;*(v8*)(acc+2*tot+32)=a24;
  *(v8*)(acc+3*tot+0)=a30;*(v8*)(acc+3*tot+8)=a31;*(v8*)(acc+3*tot+16)=a32;*(v8*)(acc+3*tot+24)=a33;*(v8*)(acc+3*tot+32)=a34;
}
static void ga4(const double*restrict P,const uint32_t*restrict ix,int m,double*restrict acc,int off,int tot){v8 a0={0};v8 a1={0};v8 a2={0};v8 a3={0};for(int i=0;i<m;i++){const v8*r=(const v8*)(P+(size_t)ix[i]*tot+off);a0+=r[0];a1+=r[1];a2+=r[2];a3+=r[3];}*(v8*)(acc+off+0)=a0;*(v8*)(acc+off+8)=a1;*(v8*)(acc+off+16)=a2;*(v8*)(acc+off+24)=a3;}
static void ga7(const double*restrict P,const uint32_t*restrict ix,int m,double*restrict acc,int off,int tot){v8 a0={0};v8 a1={0};v8 a2={0};v8 a3={0};v8 a4={0};v8 a5={0};v8 a6={0};for(int i=0;i<m;i++){const v8*r=(const v8*)(P+(size_t)ix[i]*tot+off);a0+=r[0];a1+=r[1];a2+=r[2];a3+=r[3];a4+=r[4];a5+=r[5];a6+=r[6];}*(v8*)(acc+off+0)=a0;*(v8*)(acc+off+8)=a1;*(v8*)(acc+off+16)=a2;*(v8*)(acc+off+24)=a3;*(v8*)(acc+off+32)=a4;*(v8*)(acc+off+40)=a5;*(v8*)(acc+off+48)=a6;}
static void ix7(const double*restrict X,const uint32_t*restrict ix,int m,double*restrict acc){v8 a0_0={0};v8 a1_0={0};v8 a2_0={0};v8 a3_0={0};v8 a4_0={0};v8 a5_0={0};v8 a6_0={0};for(int i=0;i<m;i++){const double*r=X+(size_t)ix[i]*8;v8 x0=*(const v8*)(r+0);a0_0+=x0*r[0];a1_0+=x0*r[1];a2_0+=x0*r[2];a3_0+=x0*r[3];a4_0+=x0*r[4];a5_0+=x0*r[5];a6_0+=x0*r[6];}int k=0;acc[k++]=a0_0[0];acc[k++]=a0_0[1];acc[k++]=a0_0[2];acc[k++]=a0_0[3];acc[k++]=a0_0[4];acc[k++]=a0_0[5];acc[k++]=a0_0[6];acc[k++]=a1_0[1];acc[k++]=a1_0[2];acc[k++]=a1_0[3];acc[k++]=a1_0[4];acc[k++]=a1_0[5];acc[k++]=a1_0[6];acc[k++]=a2_0[2];acc[k++]=a2_0[3];acc[k++]=a2_0[4];acc[k++]=a2_0[5];acc[k++]=a2_0[6];acc[k++]=a3_0[3];acc[k++]=a3_0[4];acc[k++]=a3_0[5];acc[k++]=a3_0[6];acc[k++]=a4_0[4];acc[k++]=a4_0[5];acc[k++]=a4_0[6];acc[k++]=a5_0[5];acc[k++]=a5_0[6];acc[k++]=a6_0[6];}
static void ix14(const double*restrict X,const uint32_t*restrict ix,int m,double*restrict acc){v8 a0_0={0};v8 a0_1={0};v8 a1_0={0};v8 a1_1={0};v8 a2_0={0};v8 a2_1={0};v8 a3_0={0};v8 a3_1={0};v8 a4_0={0};v8 a4_1={0};v8 a5_0={0};v8 a5_1={0};v8 a6_0={0};v8 a6_1={0};v8 a7_0={0};v8 a7_1={0};v8 a8_1={0};v8 a9_1={0};v8 a10_1={0};v8 a11_1={0};v8 a12_1={0};v8 a13_1={0};for(int i=0;i<m;i++){const double*r=X+(size_t)ix[i]*16;v8 x0=*(const v8*)(r+0);v8 x1=*(const v8*)(r+8);a0_0+=x0*r[0];a0_1+=x1*r[0];a1_0+=x0*r[1];a1_1+=x1*r[1];a2_0+=x0*r[2];a2_1+=x1*r[2];a3_0+=x0*r[3];a3_1+=x1*r[3];a4_0+=x0*r[4];a4_1+=x1*r[4];a5_0+=x0*r[5];a5_1+=x1*r[5];a6_0+=x0*r[6];a6_1+=x1*r[6];a7_0+=x0*r[7];a7_1+=x1*r[7];a8_1+=x1*r[8];a9_1+=x1*r[9];a10_1+=x1*r[10];a11_1+=x1*r[11];a12_1+=x1*r[12];a13_1+=x1*r[13];}int k=0;acc[k++]=a0_0[0];acc[k++]=a0_0[1];acc[k++]=a0_0[2];acc[k++]=a0_0[3];acc[k++]=a0_0[4];acc[k++]=a0_0[5];acc[k++]=a0_0[6];acc[k++]=a0_0[7];acc[k++]=a0_1[0];acc[k++]=a0_1[1];acc[k++]=a0_1[2];acc[k++]=a0_1[3];acc[k++]=a0_1[4];acc[k++]=a0_1[5];acc[k++]=a1_0[1];acc[k++]=a1_0[2];acc[k++]=a1_0[3];acc[k++]=a1_0[4];acc[k++]=a1_0[5];acc[k++]=a1_0[6];acc[k++]=a1_0[7];acc[k++]=a1_1[0];acc[k++]=a1_1[1];acc[k++]=a1_1[2];acc[k++]=a1_1[3];acc[k++]=a1_1[4];acc[k++]=a1_1[5];acc[k++]=a2_0[2];acc[k++]=a2_0[3];acc[k++]=a2_0[4];acc[k++]=a2_0[5];acc[k++]=a2_0[6];acc[k++]=a2_0[7];acc[k++]=a2_1[0];acc[k++]=a2_1[1];acc[k++]=a2_1[2];acc[k++]=a2_1[3];acc[k++]=a2_1[4];acc[k++]=a2_1[5];acc[k++]=a3_0[3];acc[k++]=a3_0[4];acc[k++]=a3_0[5];acc[k++]=a3_0[6];acc[k++]=a3_0[7];acc[k++]=a3_1[0];acc[k++]=a3_1[1];acc[k++]=a3_1[2];acc[k++]=a3_1[3];acc[k++]=a3_1[4];acc[k++]=a3_1[5];acc[k++]=a4_0[4];acc[k++]=a4_0[5];acc[k++]=a4_0[6];acc[k++]=a4_0[7];acc[k++]=a4_1[0];acc[k++]=a4_1[1];acc[k++]=a4_1[2];acc[k++]=a4_1[3];acc[k++]=a4_1[4];acc[k++]=a4_1[5];acc[k++]=a5_0[5];acc[k++]=a5_0[6];acc[k++]=a5_0[7];acc[k++]=a5_1[0];acc[k++]=a5_1[1];acc[k++]=a5_1[2];acc[k++]=a5_1[3];acc[k++]=a5_1[4];acc[k++]=a5_1[5];acc[k++]=a6_0[6];acc[k++]=a6_0[7];acc[k++]=a6_1[0];acc[k++]=a6_1[1];acc[k++]=a6_1[2];acc[k++]=a6_1[3];acc[k++]=a6_1[4];acc[k++]=a6_1[5];acc[k++]=a7_0[7];acc[k++]=a7_1[0];acc[k++]=a7_1[1];acc[k++]=a7_1[2];acc[k++]=a7_1[3];acc[k++]=a7_1[4];acc[k++]=a7_1[5];acc[k++]=a8_1[0];acc[k++]=a8_1[1];acc[k++]=a8_1[2];acc[k++]=a8_1[3];acc[k++]=a8_1[4];acc[k++]=a8_1[5];acc[k++]=a9_1[1];acc[k++]=a9_1[2];acc[k++]=a9_1[3];acc[k++]=a9_1[4];acc[k++]=a9_1[5];acc[k++]=a10_1[2];acc[k++]=a10_1[3];acc[k++]=a10_1[4];acc[k++]=a10_1[5];acc[k++]=a11_1[3];acc[k++]=a11_1[4];acc[k++]=a11_1[5];acc[k++]=a12_1[4];acc[k++]=a12_1[5];acc[k++]=a13_1[5];}

/*END KERNELS*/
static double qsel(double*a,int n,int k){int l=0,r=n-1;while(l<r){double pv=a[(l+r)>>1];int i=l,j=r;while(i<=j){while(a[i]<pv)i++;while(a[j]>pv)j--;if(i<=j){double t=a[i];a[i]=a[j];a[j]=t;i++;j--;}}if(k<=j)r=j;else if(k>=i)l=i;else return a[k];}return a[k];}
static double chk;
enum{RB=96,KC=256,LDC=264};
static void*work(void*arg){int ST=mode[0]=='g'&&mode[1]=='e'?RB:16;int id=(int)(intptr_t)arg;double*acc;uint32_t*ix;double*C;int mx=n;
  if(posix_memalign((void**)&acc,64,RB*TRP*8)||posix_memalign((void**)&ix,64,(size_t)mx*16*4)||posix_memalign((void**)&C,64,(size_t)LDC*RB*8))exit(1);
  uint8_t*cn=malloc((size_t)RB*(mx+32));uint64_t ck=0;
  for(int g=0;g<G;g++){int m=gs[g];const double*Pg=P[g];
    int lo=(int)((long)B*id/NT)/16*16,hi=id==NT-1?B:(int)((long)B*(id+1)/NT)/16*16;
    for(int s=lo;s<hi;s+=ST){int c=hi-s<ST?hi-s:ST;
      if(!strcmp(mode,"rng")){for(int l=0;l<c;l++){uint32_t S[4];seed(s+l+g*B,S);for(int i=0;i<m;i++)ck+=((uint64_t)nxt(S)*(uint32_t)m)>>32;}continue;}
      if(mode[0]=='g'&&mode[1]=='e'){ // counts for RB resamples, then cache-blocked GEMM
        memset(cn,0,(size_t)RB*m);memset(acc,0,RB*TRP*8);int RC=(c+15)/16*16;
        for(int h=0;h<c;h+=16){draw16(s+h+g*B,m,m,ix);for(int l=0;l<16;l++){uint8_t*cl=cn+(size_t)(h+l)*m;const uint32_t*il=ix+(size_t)l*m;for(int i=0;i<m;i++)cl[il[i]]++;}}
        for(int k0=0;k0<m;k0+=KC){int kc=m-k0<KC?m-k0:KC;const double*pk=Pg+(size_t)k0*TRP;
          for(int r=0;r<RC;r++)for(int i=0;i<kc;i++)C[r*LDC+i]=cn[(size_t)r*m+k0+i];
          if(TRP==32)for(int r=0;r<RC;){double*ar=acc+r*TRP;if(RC-r>=6&&RC-r!=8){mk64(pk,C+r*LDC,LDC,kc,ar,32);r+=6;}else{mk44(pk,C+r*LDC,LDC,kc,ar,32);r+=4;}}
          else for(int r=0;r<RC;r+=4){double*ar=acc+r*TRP;mk44(pk,C+r*LDC,LDC,kc,ar,112);mk45(pk+32,C+r*LDC,LDC,kc,ar+32,112);mk45(pk+72,C+r*LDC,LDC,kc,ar+72,112);}}
        for(int l=0;l<c;l++)fit(acc+l*TRP,m,rep+((size_t)g*B+s+l)*NS);
        continue;}
      draw16(s+g*B,m,m,ix);
      if(!strcmp(mode,"rngv")){ck+=ix[5];continue;}
      for(int l=0;l<c;l++){double*ar=acc+l*TRP;
        if(mode[0]=='i'){ if(q==7)ix7(Xg[g],ix+(size_t)l*m,m,ar);else ix14(Xg[g],ix+(size_t)l*m,m,ar);}
        else if(TRP==32)ga4(Pg,ix+(size_t)l*m,m,ar,0,32);
        else{ga7(Pg,ix+(size_t)l*m,m,ar,0,112);ga7(Pg,ix+(size_t)l*m,m,ar,56,112);} }
      for(int l=0;l<c;l++)fit(acc+l*TRP,m,rep+((size_t)g*B+s+l)*NS);
    }}
  if(ck)chk+=ck;free(acc);free(ix);free(C);free(cn);return 0;}
static double qn(double pr){ // normal quantile via erfc Newton/Halley
  double x=0;if(pr<=0||pr>=1)return pr<=0?-38:38;double t=sqrt(-2*log(pr<.5?pr:1-pr));x=t-(2.515517+.802853*t+.010328*t*t)/(1+1.432788*t+.189269*t*t+.001308*t*t*t);if(pr<.5)x=-x;
  for(int i=0;i<6;i++){double e=.5*erfc(-x/M_SQRT2)-pr,u=e*sqrt(2*M_PI)*exp(x*x/2);x-=u/(1+x*u/2);}return x;}
static void jackg(const double*Dg,int m,double*J,double*est){ // closed form leave-one-out
  double tr[120];int k=0;for(int i=0;i<q;i++)for(int j=i;j<q;j++,k++){double s=0;for(int r=0;r<m;r++)s+=Dg[(size_t)r*q+i]*Dg[(size_t)r*q+j];tr[k]=s;}
  fit(tr,m,est);double A[15][15],L[15][15];k=0;for(int i=0;i<q;i++)for(int j=i;j<q;j++)A[j][i]=tr[k++];
  for(int j=0;j<q;j++){double s=A[j][j];for(int t=0;t<j;t++)s-=L[j][t]*L[j][t];L[j][j]=sqrt(s);for(int i=j+1;i<q;i++){double v=A[i][j];for(int t=0;t<j;t++)v-=L[i][t]*L[j][t];L[i][j]=v/L[j][j];}}
  double ss[15],mean[15],suf[16];for(int i=0;i<q;i++){mean[i]=A[i][0]/m;ss[i]=0;for(int r=0;r<m;r++){double d=Dg[(size_t)r*q+i]-mean[i];ss[i]+=d*d;}}
  suf[q]=0;for(int i=q-1;i>=0;i--)suf[i]=suf[i+1]+L[p][i]*L[p][i];
  for(int r=0;r<m;r++){const double*x=Dg+(size_t)r*q;double v[15],cv[15],cf[15],h=0,f=0,mj[15],sd[15],w[15];double*o=J+(size_t)r*NS;
    for(int i=0;i<p;i++){double s=x[i];for(int t=0;t<i;t++)s-=L[i][t]*v[t];v[i]=s/L[i][i];h+=v[i]*v[i];f+=v[i]*L[p][i];cv[i]=h;cf[i]=f;}
    double dy=x[p]-mean[p],tss=ss[p]-dy*dy*m/(m-1.0),*R=o+p+p-1;
    for(int s=0;s<K;s++){double e=x[p]-cf[ends[s]-1];R[s]=1-(suf[ends[s]]-e*e/(1-cv[ends[s]-1]))/tss;}for(int s=1;s<K;s++)R[K+s-1]=R[s]-R[s-1];
    double sc=(x[p]-cf[p-1])/(1-cv[p-1]);for(int i=p-1;i>=0;i--){double s=v[i];for(int t=i+1;t<p;t++)s-=L[t][i]*w[t];w[i]=s/L[i][i];}
    for(int i=0;i<p;i++)o[i]=est[i]-w[i]*sc;
    for(int i=0;i<q;i++){double d=x[i]-mean[i];mj[i]=(m*mean[i]-x[i])/(m-1);sd[i]=sqrt((ss[i]-d*d*m/(m-1.0))/(m-2));}
    double*be=o+p;for(int j=1;j<p;j++)be[j-1]=o[j]*sd[j]/sd[p];double bi=o[p-1];be[ia-1]=(o[ia]+bi*mj[ib])*sd[ia]/sd[p];be[ib-1]=(o[ib]+bi*mj[ia])*sd[ib]/sd[p];be[p-2]=bi*sd[ia]*sd[ib]/sd[p];}}
static void bca(double est,double*v,double a,double*lo,double*hi){double c=0;for(int i=0;i<B;i++)c+=v[i]<est?1:v[i]==est?.5:0;
  double z0=qn(c/B);for(int s=0;s<2;s++){double z=s?1.9599639845400545:-1.9599639845400545,w=z0+(z0+z)/(1-a*(z0+z)),al=.5*erfc(-w/M_SQRT2),po=al*(B-1);int l=po;double f=po-l,q0=qsel(v,B,l),q1=q0;if(l+1<B){q1=v[l+1];for(int i=l+2;i<B;i++)if(v[i]<q1)q1=v[i];}double r=q0*(1-f)+q1*f;if(s)*hi=r;else*lo=r;}}
int main(int c,char**v){int h[64];FILE*f=fopen(v[1],"rb");if(fread(h,4,64,f)!=64)return 1;n=h[0];p=h[1];K=h[2];for(int i=0;i<8;i++)ends[i]=h[3+i];ia=h[11];ib=h[12];G=h[13];for(int i=0;i<G;i++)gs[i]=h[14+i];
  q=p+1;TR=q*(q+1)/2;TRP=q==7?32:112;NS=p+p-1+2*K-1;D=malloc((size_t)n*q*8);if(fread(D,8,(size_t)n*q,f)!=(size_t)n*q)return 1;
  mode=v[2];NT=atoi(v[3]);int reps=c>4?atoi(v[4]):3;if(c>5)B=atoi(v[5]);rep=malloc((size_t)G*B*NS*8);
  for(int it=0;it<reps;it++){double t0=now();size_t o=0;
    for(int g=0;g<G;g++){int m=gs[g];if(!P[g]){if(posix_memalign((void**)&P[g],64,(size_t)m*TRP*8)||posix_memalign((void**)&Xg[g],64,(size_t)m*16*8))return 1;}
      int LD=q==7?8:16;for(int r=0;r<m;r++){double*x=D+(o+r)*q,*pp=P[g]+(size_t)r*TRP;int k=0;for(int i=q;i<LD;i++)Xg[g][(size_t)r*LD+i]=0;for(int i=0;i<q;i++){Xg[g][(size_t)r*LD+i]=x[i];for(int j=i;j<q;j++)pp[k++]=x[i]*x[j];}for(;k<TRP;k++)pp[k]=0;}o+=m;}
    pthread_t th[8];for(int i=1;i<NT;i++)pthread_create(&th[i],0,work,(void*)(intptr_t)i);work(0);for(int i=1;i<NT;i++)pthread_join(th[i],0);
    double t1=now();if(!strncmp(mode,"rng",3)){printf("{\"impl\":\"c-%s-%dt\",\"w\":\"%.2s\",\"B\":%d,\"ms\":%.2f,\"chk\":%g}\n",mode,NT,strrchr(v[1],'W'),B,t1-t0,chk);continue;}
    double*num=calloc(NS*G,8),*den=calloc(NS*G,8),*est=calloc(NS*G,8);o=0;
    for(int g=0;g<G;g++){int m=gs[g];double*J=malloc((size_t)m*NS*8),*mu=calloc(NS,8);jackg(D+o*q,m,J,est+g*NS);o+=m;
      for(int r=0;r<m;r++)for(int s=0;s<NS;s++)mu[s]+=J[(size_t)r*NS+s]/m;
      for(int r=0;r<m;r++)for(int s=0;s<NS;s++){double u=(m-1)*(mu[s]-J[(size_t)r*NS+s]);num[g*NS+s]+=u*u*u/((double)m*m*m);den[g*NS+s]+=u*u/((double)m*m);}free(J);free(mu);}
    double t2=now();FILE*out=(c>6&&it==reps-1)?fopen(v[6],"w"):0;if(out)fprintf(out,"[");double*w=malloc(B*8),lo,hi;int first=1;
    #define EMIT(E,NU,DE) {double e_=E;bca(e_,w,(NU)/(6*pow(DE,1.5)),&lo,&hi);if(out)fprintf(out,"%s[%.17g,%.17g,%.17g]",first?"":",",e_,lo,hi);first=0;}
    if(G==1)for(int s=0;s<NS;s++){for(int b=0;b<B;b++)w[b]=rep[(size_t)b*NS+s];EMIT(est[s],num[s],den[s])}
    else{for(int g=0;g<G;g++)for(int s=0;s<p;s++){for(int b=0;b<B;b++)w[b]=rep[((size_t)g*B+b)*NS+s];EMIT(est[g*NS+s],num[g*NS+s],den[g*NS+s])}
      for(int i=0;i<G;i++)for(int j=i+1;j<G;j++)for(int s=1;s<p;s++){for(int b=0;b<B;b++)w[b]=rep[((size_t)i*B+b)*NS+s]-rep[((size_t)j*B+b)*NS+s];EMIT(est[i*NS+s]-est[j*NS+s],num[i*NS+s]-num[j*NS+s],den[i*NS+s]+den[j*NS+s])}}
    if(out){fprintf(out,"]\n");fclose(out);}double t3=now();
    printf("{\"impl\":\"c-%s-%dt\",\"w\":\"%.2s\",\"B\":%d,\"ms\":%.2f,\"phases\":{\"boot\":%.2f,\"jack\":%.2f,\"bca\":%.2f}}\n",mode,NT,strrchr(v[1],'W'),B,t3-t0,t1-t0,t2-t1,t3-t2);fflush(stdout);free(num);free(den);free(est);free(w);}
}
